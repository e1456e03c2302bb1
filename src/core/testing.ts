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
