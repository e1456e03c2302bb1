import fc from 'fast-check';

/** A million places from one figure to another, both with them. */
const PLACES = 1_000_000;

/**
 * Any figure between two, for tests: as many in each tenth of the way, and more at its ends. (`fc.double` counts
 * through the figures that a computer can write down: of those between 0 and 1 all but a few in a thousand are smaller
 * than anything that is ever heard or seen.)
 */
export const between = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: PLACES }).map((place) => (place === PLACES ? max : min + ((max - min) * place) / PLACES));

/** Largest sixth difference from a sample on: a step shows in it by a factor of twenty, a sine of 220 Hz does not. */
export function roughness(samples: ArrayLike<number>, from = 72_006): number {
  let most = 0;
  for (let i = from; i < samples.length; i += 1) {
    const s = (k: number): number => samples[i - k]!;
    most = Math.max(most, Math.abs(s(0) - 6 * s(1) + 15 * s(2) - 20 * s(3) + 15 * s(4) - 6 * s(5) + s(6)));
  }
  return most;
}
