/** One promise about the sound, with a way to measure it: `measure` gives how far off it is, which must stay under `limit`. */
export interface Accuracy {
  readonly effect: string;
  readonly promise: string;
  readonly unit: string;
  readonly limit: number;
  readonly measure: () => number;
}

export const worst = (errors: readonly number[]): number => errors.reduce((most, error) => Math.max(most, Math.abs(error)), 0);

/** Largest difference of two runs of samples. */
export const apart = (a: ArrayLike<number>, b: ArrayLike<number>): number => worst(Array.from({ length: Math.min(a.length, b.length) }, (_, i) => a[i]! - b[i]!));
