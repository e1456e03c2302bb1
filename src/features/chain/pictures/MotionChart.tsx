import { StyleSheet, View } from 'react-native';
import Svg, { Circle, G, Line, Path, Text as SvgText } from 'react-native-svg';
import type { MotionPicture } from '../../../core/effects/pictures';
import { secondsPerBeat, type Tempo } from '../../../core/music/tempo';
import { useTokens } from '../../../ui/theme';
import { Grip, type OnPull } from './Grip';
import { FONT } from '../../../ui/tokens';

const PAD = 30;
const RULER = 22;
const TOP = 10;

interface MotionChartProps {
  readonly picture: MotionPicture;
  readonly tempo: Tempo;
  readonly width: number;
  readonly height: number;
  readonly onPull: OnPull;
}

/** Level over time: left rises from the waterline, right hangs below it. */
export function MotionChart({ picture, tempo, width, height, onPull }: MotionChartProps) {
  const tokens = useTokens();
  const middle = TOP + (height - TOP - RULER) / 2;
  const half = (height - TOP - RULER) / 2 - 4;
  const beat = secondsPerBeat(tempo);
  const x = (share: number): number => PAD + share * (width - PAD - 12);
  const shore = (levels: readonly number[], up: 1 | -1): string =>
    `M${x(0)} ${middle}${levels.map((level, i) => `L${x(i / (levels.length - 1)).toFixed(1)} ${(middle - up * half * Math.min(1, level)).toFixed(1)}`).join('')}L${x(1)} ${middle}Z`;
  const every =
    picture.spanSeconds / beat > 10
      ? 4
      : picture.spanSeconds / beat > 4
        ? 1
        : picture.spanSeconds / beat > 1
          ? 0.5
          : 0.25;
  const marks = Array.from({ length: Math.floor(picture.spanSeconds / (beat * every)) + 1 }, (_, i) => i * every);
  const handles = picture.handles ?? [];
  const top = (level: number): number => middle - half * level;
  const deepest = Math.min(...picture.left, ...picture.right);
  return (
    <View style={{ width, height }}>
      <View
        role="img"
        aria-label={`Level over ${picture.spanSeconds.toFixed(2)} s: falls to ${Math.round(deepest * 100)} %, ${same(picture) ? 'both sides together' : 'the sides apart'}.`}
        style={StyleSheet.absoluteFill}
      >
        <Svg width={width} height={height}>
          {marks.map((at) => (
            <G key={at}>
              <Line
                x1={x((at * beat) / picture.spanSeconds)}
                x2={x((at * beat) / picture.spanSeconds)}
                y1={TOP}
                y2={height - RULER}
                stroke={tokens.line}
                strokeWidth={1}
              />
              <SvgText
                x={x((at * beat) / picture.spanSeconds)}
                y={height - 6}
                textAnchor="middle"
                fontFamily={FONT}
                fontSize={12}
                fill={tokens.mute}
              >
                {String(at + 1)}
              </SvgText>
            </G>
          ))}
          <Path d={shore(picture.left, 1)} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={1.8} />
          <Path d={shore(picture.right, -1)} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={1.8} />
          <Line x1={8} x2={width - 4} y1={middle} y2={middle} stroke={tokens.sand} strokeWidth={2.5} />
          <SvgText x={8} y={TOP + 12} fontFamily={FONT} fontSize={12} fill={tokens.mute}>
            left
          </SvgText>
          <SvgText x={8} y={height - RULER - 5} fontFamily={FONT} fontSize={12} fill={tokens.mute}>
            right
          </SvgText>
          {handles.map((handle) => (
            <Circle
              key={handle.label}
              cx={x(handle.x / picture.spanSeconds)}
              cy={top(handle.y)}
              r={7}
              fill={tokens.card}
              stroke={tokens.sea}
              strokeWidth={2.4}
            />
          ))}
        </Svg>
      </View>
      {handles.map((handle) => (
        <Grip
          key={handle.label}
          handle={handle}
          at={{ x: x(handle.x / picture.spanSeconds), y: top(handle.y) }}
          unitX={(px) => px}
          unitY={(py) => (middle - py) / half}
          onPull={onPull}
        />
      ))}
    </View>
  );
}

const same = ({ left, right }: MotionPicture): boolean => left.every((level, i) => Math.abs(level - right[i]!) < 0.02);
