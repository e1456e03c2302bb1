/**
 * A second-order section in powers of `d = z - 1`: `(b0 d^2 + b1 d + b2) / (d^2 + a1 d + a2)`. Poles near `z = 1` are
 * the difference of large numbers in powers of z, but small numbers of their own here, so that single precision keeps
 * them.
 * Source: R. Middleton and G. Goodwin, "Improved finite word length characteristics in digital control using delta
 * operators" (1986).
 */
export interface Section {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/** Square root of a gain given in decibels, as the shelf formulas use it. */
export const shelfRoot = (db: number): number => Math.pow(10, db / 40);

/**
 * Second-order low shelf by the bilinear transform, gain 1 above. At 0 dB both polynomials are equal to the bit, so
 * that nothing is changed.
 * @param db gain below the middle
 * @param t tan(pi f / fs) of the midpoint, where half of the gain in decibels is reached
 * @param q up to 0.707, monotonic
 */
export function lowShelf(out: Section, db: number, t: number, q: number): void {
  const root = shelfRoot(db);
  const slope = (Math.sqrt(root) * t) / q;
  const d0 = root + slope + t * t;
  out.b0 = (root * (1 + slope + root * t * t)) / d0;
  out.b1 = (root * (2 * slope + 4 * root * t * t)) / d0;
  out.b2 = (root * 4 * root * t * t) / d0;
  out.a1 = (2 * slope + 4 * t * t) / d0;
  out.a2 = (4 * t * t) / d0;
}

/** As `lowShelf`, with the gain above the middle and 1 below. */
export function highShelf(out: Section, db: number, t: number, q: number): void {
  const root = shelfRoot(db);
  const slope = (Math.sqrt(root) * t) / q;
  const d0 = 1 + slope + root * t * t;
  out.b0 = (root * (root + slope + t * t)) / d0;
  out.b1 = (root * (2 * slope + 4 * t * t)) / d0;
  out.b2 = (root * 4 * t * t) / d0;
  out.a1 = (2 * slope + 4 * root * t * t) / d0;
  out.a2 = (4 * root * t * t) / d0;
}

/**
 * Power gain of the low shelf.
 * @param root shelfRoot of its gain
 * @param x tan(pi f / fs) of the frequency over that of the middle
 */
export function lowShelfPower(root: number, x: number, q: number): number {
  const slope = (root * x * x) / (q * q);
  const above = root - x * x;
  const below = 1 - root * x * x;
  return (root * root * (above * above + slope)) / (below * below + slope);
}

/** Power gain of the high shelf, which is the low shelf mirrored in frequency. */
export const highShelfPower = (root: number, x: number, q: number): number => lowShelfPower(root, 1 / x, q);
