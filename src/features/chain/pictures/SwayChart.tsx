import { View } from 'react-native';
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg';
import type { SwayPicture } from '../../../core/effects/pictures';
import { useTokens } from '../../../ui/theme';
import { FONT, FONT_STRONG } from '../../../ui/tokens';
import { sayMark, timeMarks } from './timeAxis';

const PAD = 44;
const RULER = 22;
const TOP = 14;
/** The scale never gets finer than this, so that a still line is seen to be one. */
const MIN_CENTS = 5;
const DASHES = { left: undefined, right: '7 5', both: '2 4' } as const;

interface SwayChartProps {
  readonly picture: SwayPicture;
  readonly width: number;
  readonly height: number;
}

/** How far off pitch each line is over time, round the sand line of the sound as it came. */
export function SwayChart({ picture, width, height }: SwayChartProps) {
  const tokens = useTokens();
  const farthest = Math.max(...picture.lines.flatMap(({ cents }) => cents.map(Math.abs)));
  const scale = Math.max(MIN_CENTS, farthest * 1.1);
  const middle = TOP + (height - TOP - RULER) / 2;
  const half = (height - TOP - RULER) / 2;
  const x = (share: number): number => PAD + share * (width - PAD - 14);
  const y = (cents: number): number => middle - (cents / scale) * half;
  const line = (cents: readonly number[]): string =>
    cents
      .map((cent, i) => `${i === 0 ? 'M' : 'L'}${x(i / (cents.length - 1)).toFixed(1)} ${y(cent).toFixed(1)}`)
      .join('');
  const mark = farthest < MIN_CENTS ? MIN_CENTS : Number((farthest * 0.75).toPrecision(1));
  return (
    <View
      role="img"
      aria-label={`${picture.lines.length} lines, up to ${Math.round(farthest)} cents off pitch over ${picture.spanSeconds.toFixed(2)} s.`}
      style={{ width, height }}
    >
      <Svg width={width} height={height}>
        {timeMarks(picture.spanSeconds, 6).map((at) => (
          <G key={at}>
            <Line
              x1={x(at / picture.spanSeconds)}
              x2={x(at / picture.spanSeconds)}
              y1={TOP}
              y2={height - RULER}
              stroke={tokens.line}
              strokeWidth={1}
            />
            <SvgText
              x={x(at / picture.spanSeconds)}
              y={height - 6}
              textAnchor="middle"
              fontFamily={FONT}
              fontSize={12}
              fill={tokens.mute}
            >
              {sayMark(at)}
            </SvgText>
          </G>
        ))}
        {[mark, -mark].map((cents) => (
          <G key={cents}>
            <Line x1={PAD} x2={width - 14} y1={y(cents)} y2={y(cents)} stroke={tokens.line} strokeWidth={1} />
            <SvgText
              x={PAD - 6}
              y={y(cents) + 4}
              textAnchor="end"
              fontFamily={FONT}
              fontSize={12}
              fill={tokens.mute}
            >{`${cents > 0 ? '+' : '\u2212'}${mark}`}</SvgText>
          </G>
        ))}
        <Line x1={PAD} x2={width - 14} y1={middle} y2={middle} stroke={tokens.sand} strokeWidth={2.5} />
        {picture.lines.map(({ side, cents }) => (
          <Path
            key={side}
            d={line(cents)}
            stroke={tokens.sea}
            strokeWidth={2.2}
            strokeDasharray={DASHES[side]}
            fill="none"
          />
        ))}
        <SvgText
          x={PAD + 8}
          y={TOP + 4}
          fontFamily={FONT_STRONG}
          fontSize={13}
          fill={tokens.ink}
        >{`up to ${farthest < 10 ? farthest.toFixed(1) : Math.round(farthest)} cents`}</SvgText>
        <SvgText x={width - 16} y={TOP + 4} textAnchor="end" fontFamily={FONT} fontSize={12} fill={tokens.mute}>
          {picture.lines.length === 3 ? 'left, dashed right, dotted both' : 'left, dashed right'}
        </SvgText>
      </Svg>
    </View>
  );
}
