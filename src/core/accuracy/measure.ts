/**
 * One promise about the sound, with a way to measure it: `measure` gives how far off it is, which must stay under
 * `limit`.
 */
export interface Accuracy {
  readonly effect: string;
  readonly promise: string;
  readonly unit: string;
  readonly limit: number;
  readonly measure: () => number;
  /** It takes so long that the tests leave it to `npm run accuracy`, and measure the same of one other setting. */
  readonly slow?: boolean;
}

export const worst = (errors: readonly number[]): number =>
  errors.reduce((most, error) => Math.max(most, Math.abs(error)), 0);

/** Largest difference of two runs of samples. */
export const apart = (a: ArrayLike<number>, b: ArrayLike<number>): number =>
  worst(Array.from({ length: Math.min(a.length, b.length) }, (_, i) => a[i]! - b[i]!));

/**
 * Window of so many samples whose side lobes are at -92 dB. Source: F. J. Harris, "On the Use of Windows for Harmonic
 * Analysis" (1978), four terms.
 */
export function blackmanHarris(i: number, frames: number): number {
  const turn = (2 * Math.PI * i) / frames;
  return 0.35875 - 0.48829 * Math.cos(turn) + 0.14128 * Math.cos(2 * turn) - 0.01168 * Math.cos(3 * turn);
}
