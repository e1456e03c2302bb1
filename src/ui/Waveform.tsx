import { memo, useMemo } from 'react';
import Svg, { Path } from 'react-native-svg';

interface WaveformProps {
  /** Peaks 0-1 of equal stretches. */
  readonly peaks: Float32Array;
  /** The part of them to draw, as indexes. */
  readonly from: number;
  readonly to: number;
  readonly width: number;
  readonly height: number;
  readonly colour: string;
  /** By how much it is louder than its peaks. */
  readonly gain?: number;
  /** Drawn from its end to its beginning. */
  readonly reversed?: boolean;
}

const PITCH = 3;

/** A sound as a row of ink strokes, as high as it is loud. */
export const Waveform = memo(function Waveform({
  peaks,
  from,
  to,
  width,
  height,
  colour,
  gain = 1,
  reversed = false,
}: WaveformProps) {
  const path = useMemo(() => strokes(peaks, from, to, width, height, gain), [peaks, from, to, width, height, gain]);
  return (
    <Svg width={width} height={height} style={{ pointerEvents: 'none', transform: reversed ? [{ scaleX: -1 }] : [] }}>
      <Path d={path} stroke={colour} strokeWidth={1.6} strokeLinecap="round" />
    </Svg>
  );
});

function strokes(peaks: Float32Array, from: number, to: number, width: number, height: number, gain: number): string {
  const count = Math.max(1, Math.floor(width / PITCH));
  let path = '';
  for (let i = 0; i < count; i += 1) {
    const start = Math.floor(from + ((to - from) * i) / count);
    const end = Math.max(start + 1, Math.floor(from + ((to - from) * (i + 1)) / count));
    let peak = 0;
    for (let k = start; k < end && k < peaks.length; k += 1) if (peaks[k]! > peak) peak = peaks[k]!;
    const half = Math.max(0.5, Math.pow(Math.min(1, gain * peak), 0.7) * (height / 2 - 1));
    const x = (i + 0.5) * PITCH;
    path += `M${x.toFixed(1)} ${(height / 2 - half).toFixed(1)}V${(height / 2 + half).toFixed(1)}`;
  }
  return path;
}
