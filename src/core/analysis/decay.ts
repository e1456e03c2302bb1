import { StateVariable, tuning } from '../dsp/stateVariable';

/** Q of the two stages of a Butterworth filter of fourth order. */
const STAGES = [0.541196, 1.306563] as const;

/**
 * Band of one octave around `hz`: Butterworth filters of fourth order at both edges, twice, so that a slow neighbour
 * does not leak in (IEC 61260).
 */
export function octaveBand(samples: ArrayLike<number>, hz: number, sampleRate: number): Float64Array {
  const out = Float64Array.from(samples);
  for (let pass = 0; pass < 2; pass += 1) {
    for (const q of STAGES) {
      const low = tuning(hz * Math.SQRT1_2, q, sampleRate);
      new StateVariable().process(out, out.length, low.g, low.k, 1, -low.k, -1);
      const high = tuning(hz * Math.SQRT2, q, sampleRate);
      new StateVariable().process(out, out.length, high.g, high.k, 0, 0, 1);
    }
  }
  return out;
}

/**
 * Remaining energy of all channels at every frame, in dB under the whole, by backward integration (M. R. Schroeder,
 * 1965; ISO 3382).
 */
export function decayCurve(channels: readonly Float64Array[], frame: number): Float64Array {
  const count = Math.floor((channels[0]?.length ?? 0) / frame);
  const curve = new Float64Array(count);
  let sum = 0;
  for (let i = count - 1; i >= 0; i -= 1) {
    for (const samples of channels)
      for (let k = i * frame; k < (i + 1) * frame; k += 1) sum += samples[k]! * samples[k]!;
    curve[i] = sum;
  }
  const whole = curve[0] ?? 0;
  for (let i = 0; i < count; i += 1) curve[i] = whole > 0 ? 10 * Math.log10(Math.max(curve[i]! / whole, 1e-20)) : -200;
  return curve;
}

/**
 * Seconds for a fall of 60 dB, from the regression line of the curve between two levels (ISO 3382: T30 by -5 and -35
 * dB).
 * @returns NaN when the curve does not fall that far
 */
export function decaySeconds(channels: readonly Float64Array[], sampleRate: number, fromDb = -5, toDb = -35): number {
  const frame = Math.max(1, Math.round(0.001 * sampleRate));
  const curve = decayCurve(channels, frame);
  let n = 0;
  let sumX = 0;
  let sumY = 0;
  let sumXX = 0;
  let sumXY = 0;
  for (let i = 0; i < curve.length && curve[i]! > toDb; i += 1) {
    const y = curve[i]!;
    if (y > fromDb) continue;
    n += 1;
    sumX += i;
    sumY += y;
    sumXX += i * i;
    sumXY += i * y;
  }
  const fallsFar = curve.some((level) => level <= toDb);
  if (n < 2 || !fallsFar) return Number.NaN;
  const slope = (n * sumXY - sumX * sumY) / (n * sumXX - sumX * sumX);
  return ((-60 / slope) * frame) / sampleRate;
}
