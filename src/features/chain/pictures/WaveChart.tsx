import { Line, Path } from 'react-native-svg';
import type { WavePicture } from '../../../core/effects/pictures';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { saySeconds } from './timeAxis';

const PAD = 14;
const TOP = 22;
const BOTTOM = 14;

interface WaveChartProps {
  readonly picture: WavePicture;
  readonly width: number;
  readonly height: number;
}

/** A wave as it went in, in sand, and as it came out, in water. */
export function WaveChart({ picture, width, height }: WaveChartProps) {
  const tokens = useTokens();
  const middle = TOP + (height - TOP - BOTTOM) / 2;
  const half = (height - TOP - BOTTOM) / 2;
  const x = (i: number): number => PAD + (i / (picture.before.length - 1)) * (width - 2 * PAD);
  const y = (value: number): number => middle - Math.max(-1, Math.min(1, value)) * half;
  const path = (wave: readonly number[]): string => linePath(wave.map((value, i) => ({ x: x(i), y: y(value) })));
  const heights = new Set(picture.after.map((value) => value.toFixed(2))).size;
  return (
    <ChartFrame
      label={`${picture.test} over ${saySeconds(picture.spanSeconds)}: about ${heights} different heights come out, up to ${Math.max(...picture.after).toFixed(2)}.`}
      width={width}
      height={height}
    >
      <Line x1={PAD} x2={width - PAD} y1={middle} y2={middle} stroke={tokens.line} strokeWidth={1} />
      <Path d={path(picture.before)} stroke={tokens.sand} strokeWidth={2} fill="none" />
      <Path d={path(picture.after)} stroke={tokens.sea} strokeWidth={2.4} fill="none" />
      <ChartText x={width - PAD} y={14} anchor="end">{`${picture.test}: sand in, water out`}</ChartText>
    </ChartFrame>
  );
}
