/**
 * Kernels for reading a signal between its samples: a windowed sinc per phase.
 * Source: Julius O. Smith, "Digital Audio Resampling Home Page" (2002); window after J. F. Kaiser (1974). Each kernel
 * sums to exactly 1 and has its centroid exactly on the phase, so that repeats in a feedback loop neither gain level
 * nor drift in time.
 */
export const SINC_TAPS = 16;
/** Samples the kernel looks back from the whole part of the position; it looks ahead by one more. */
export const SINC_BEFORE = SINC_TAPS / 2 - 1;
export const SINC_AHEAD = SINC_TAPS / 2;
const PHASES = 2048;
const BETA = 8;
/**
 * The centroid is corrected by two far taps: between near ones the correction would cost accuracy at high frequencies.
 */
const FAR = 6;

/** Modified Bessel function of the first kind, order 0, by its series. */
export function besselI0(x: number): number {
  let sum = 1;
  let term = 1;
  for (let k = 1; term > 1e-17 * sum; k += 1) {
    term *= (x / (2 * k)) * (x / (2 * k));
    sum += term;
  }
  return sum;
}

export function kaiserSinc(distance: number, half: number, beta: number): number {
  const at = distance / half;
  if (Math.abs(at) >= 1) return 0;
  const window = besselI0(beta * Math.sqrt(1 - at * at)) / besselI0(beta);
  const angle = Math.PI * distance;
  return Math.abs(angle) < 1e-12 ? window : (window * Math.sin(angle)) / angle;
}

function makeTable(): Float64Array {
  const table = new Float64Array((PHASES + 1) * SINC_TAPS);
  for (let phase = 0; phase <= PHASES; phase += 1) {
    const fraction = phase / PHASES;
    const row = phase * SINC_TAPS;
    let sum = 0;
    for (let k = 0; k < SINC_TAPS; k += 1) {
      const value = kaiserSinc(k - SINC_BEFORE - fraction, SINC_TAPS / 2, BETA);
      table[row + k] = value;
      sum += value;
    }
    let centroid = 0;
    for (let k = 0; k < SINC_TAPS; k += 1) {
      const value = (table[row + k] ?? 0) / sum;
      table[row + k] = value;
      centroid += value * (k - SINC_BEFORE);
    }
    const shift = (fraction - centroid) / (2 * FAR + 1);
    table[row + SINC_BEFORE - FAR] = (table[row + SINC_BEFORE - FAR] ?? 0) - shift;
    table[row + SINC_AHEAD + FAR] = (table[row + SINC_AHEAD + FAR] ?? 0) + shift;
  }
  return table;
}

export const SINC_TABLE: Float64Array = makeTable();
export const SINC_PHASES = PHASES;

/** Writes the 16 coefficients for a fraction in [0, 1) into `out`. */
export function sincCoefficients(fraction: number, out: Float64Array): void {
  const at = fraction * PHASES;
  const phase = at | 0;
  const blend = at - phase;
  const row = phase * SINC_TAPS;
  for (let k = 0; k < SINC_TAPS; k += 1) {
    const here = SINC_TABLE[row + k]!;
    out[k] = here + (SINC_TABLE[row + SINC_TAPS + k]! - here) * blend;
  }
}
