import { TruePeak, TRUE_PEAK_DELAY } from '../dsp/truePeak';

/** Peak: the greatest absolute sample. */
export function peakOf(samples: ArrayLike<number>): number {
  let peak = 0;
  for (let i = 0; i < samples.length; i += 1) {
    const size = Math.abs(samples[i]!);
    if (size > peak) peak = size;
  }
  return peak;
}

/** Root of the mean square. */
export function rmsOf(samples: ArrayLike<number>, from = 0, to = samples.length): number {
  let sum = 0;
  for (let i = from; i < to; i += 1) sum += samples[i]! * samples[i]!;
  return to > from ? Math.sqrt(sum / (to - from)) : 0;
}

/** Peak of each of `count` equal intervals, of both channels together: for drawing a waveform. */
export function peakRow(channels: readonly ArrayLike<number>[], framesPerPeak: number): Float32Array {
  const length = channels[0]?.length ?? 0;
  const row = new Float32Array(Math.ceil(length / framesPerPeak));
  for (const channel of channels) {
    for (let i = 0, at = 0; i < length; at += 1) {
      const end = Math.min(length, i + framesPerPeak);
      let peak = row[at]!;
      for (; i < end; i += 1) {
        const size = Math.abs(channel[i]!);
        if (size > peak) peak = size;
      }
      row[at] = peak;
    }
  }
  return row;
}

/** Highest level of a sound, between its samples too (ITU-R BS.1770-4, annex 2). */
export function truePeakOf(samples: ArrayLike<number>): number {
  const meter = new TruePeak();
  let most = peakOf(samples);
  for (let i = 0; i < samples.length + 2 * TRUE_PEAK_DELAY; i += 1) {
    const peak = meter.next(samples[i] ?? 0, most);
    if (peak > most) most = peak;
  }
  return most;
}

/** Correlation of two equally long channels: 1 equal, 0 uncorrelated, -1 inverted; NaN when one of them is silent. */
export function correlationOf(left: ArrayLike<number>, right: ArrayLike<number>): number {
  let [both, l, r] = [0, 0, 0];
  for (let i = 0; i < left.length; i += 1) {
    both += left[i]! * right[i]!;
    l += left[i]! * left[i]!;
    r += right[i]! * right[i]!;
  }
  return both / Math.sqrt(l * r);
}
