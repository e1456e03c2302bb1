import { Line, Path } from 'react-native-svg';
import type { SwayPicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText, VerticalGrid, HorizontalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { sayMark, timeMarks } from './timeAxis';

const PAD = 44;
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
  const middle = TOP + (height - TOP - RULER_HEIGHT) / 2;
  const half = (height - TOP - RULER_HEIGHT) / 2;
  const x = (share: number): number => PAD + share * (width - PAD - 14);
  const y = (cents: number): number => middle - (cents / scale) * half;
  const line = (cents: readonly number[]): string =>
    linePath(cents.map((cent, i) => ({ x: x(i / (cents.length - 1)), y: y(cent) })));
  const mark = farthest < MIN_CENTS ? MIN_CENTS : Number((farthest * 0.75).toPrecision(1));
  return (
    <ChartFrame
      label={`${picture.lines.length} lines, up to ${Math.round(farthest)} cents off pitch over ${picture.spanSeconds.toFixed(2)} s.`}
      width={width}
      height={height}
    >
      <VerticalGrid
        marks={timeMarks(picture.spanSeconds, 6).map((at) => ({ x: x(at / picture.spanSeconds), text: sayMark(at) }))}
        top={TOP}
        height={height}
      />
      <HorizontalGrid
        marks={[mark, -mark].map((cents) => ({ y: y(cents), text: `${cents > 0 ? '+' : '\u2212'}${mark}` }))}
        left={PAD}
        right={width - 14}
      />
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
      <ChartText
        x={PAD + 8}
        y={TOP + 4}
        strong
      >{`up to ${farthest < 10 ? farthest.toFixed(1) : Math.round(farthest)} cents`}</ChartText>
      <ChartText x={width - 16} y={TOP + 4} anchor="end">
        {picture.lines.length === 3 ? 'left, dashed right, dotted both' : 'left, dashed right'}
      </ChartText>
    </ChartFrame>
  );
}
