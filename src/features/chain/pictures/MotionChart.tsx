import { Line, Path } from 'react-native-svg';
import type { MotionPicture } from '../../../core/effects/pictures';
import { secondsPerBeat, type Tempo } from '../../../core/music/tempo';
import { ChartFrame, ChartText, VerticalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type OnPull } from './Grip';

const PAD = 30;
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
  const middle = TOP + (height - TOP - RULER_HEIGHT) / 2;
  const half = (height - TOP - RULER_HEIGHT) / 2 - 4;
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
    <ChartFrame
      label={`Level over ${picture.spanSeconds.toFixed(2)} s: falls to ${Math.round(deepest * 100)} %, ${same(picture) ? 'both sides together' : 'the sides apart'}.`}
      width={width}
      height={height}
      over={
        <Grips
          handles={handles}
          at={(handle) => ({ x: x(handle.x / picture.spanSeconds), y: top(handle.y) })}
          unitX={(px) => px}
          unitY={(py) => (middle - py) / half}
          onPull={onPull}
        />
      }
    >
      <VerticalGrid
        marks={marks.map((at) => ({ x: x((at * beat) / picture.spanSeconds), text: String(at + 1) }))}
        top={TOP}
        height={height}
      />
      <Path d={shore(picture.left, 1)} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={1.8} />
      <Path d={shore(picture.right, -1)} fill={tokens.seaSoft} stroke={tokens.sea} strokeWidth={1.8} />
      <Line x1={8} x2={width - 4} y1={middle} y2={middle} stroke={tokens.sand} strokeWidth={2.5} />
      <ChartText x={8} y={TOP + 12}>
        left
      </ChartText>
      <ChartText x={8} y={height - RULER_HEIGHT - 5}>
        right
      </ChartText>
      {handles.map((handle) => (
        <HandleDot
          key={handle.label}
          x={x(handle.x / picture.spanSeconds)}
          y={top(handle.y)}
          radius={7}
          strokeWidth={2.4}
        />
      ))}
    </ChartFrame>
  );
}

const same = ({ left, right }: MotionPicture): boolean => left.every((level, i) => Math.abs(level - right[i]!) < 0.02);
