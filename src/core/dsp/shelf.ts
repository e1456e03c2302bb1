/** A second-order section: `y = b0 x + b1 x' + b2 x'' - a1 y' - a2 y''`. */
export interface Section {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/** Square root of a gain in decibels, of which shelves are made. */
export const shelfRoot = (db: number): number => Math.pow(10, db / 40);

/**
 * Second-order low shelf by the bilinear transform, gain 1 above. At 0 dB both polynomials are equal to the bit, so that nothing is changed.
 * @param db gain below the middle  @param t tan(pi f / fs) of the middle, where half the decibels are reached  @param q up to 0.707, monotonic
 */
export function lowShelf(out: Section, db: number, t: number, q: number): void {
  const root = shelfRoot(db);
  const slope = (Math.sqrt(root) * t) / q;
  const d0 = root + slope + t * t;
  out.b0 = (root * (1 + slope + root * t * t)) / d0;
  out.b1 = (2 * root * (root * t * t - 1)) / d0;
  out.b2 = (root * (1 - slope + root * t * t)) / d0;
  out.a1 = (2 * (t * t - root)) / d0;
  out.a2 = (root - slope + t * t) / d0;
}

/** As `lowShelf`, with the gain above the middle and 1 below. */
export function highShelf(out: Section, db: number, t: number, q: number): void {
  const root = shelfRoot(db);
  const slope = (Math.sqrt(root) * t) / q;
  const d0 = 1 + slope + root * t * t;
  out.b0 = (root * (root + slope + t * t)) / d0;
  out.b1 = (2 * root * (t * t - root)) / d0;
  out.b2 = (root * (root - slope + t * t)) / d0;
  out.a1 = (2 * (root * t * t - 1)) / d0;
  out.a2 = (1 - slope + root * t * t) / d0;
}

/** Power gain of the low shelf. @param root shelfRoot of its gain  @param x tan(pi f / fs) of the frequency over that of the middle */
export function lowShelfPower(root: number, x: number, q: number): number {
  const slope = (root * x * x) / (q * q);
  const above = root - x * x;
  const below = 1 - root * x * x;
  return (root * root * (above * above + slope)) / (below * below + slope);
}

/** Power gain of the high shelf, which is the low shelf mirrored in frequency. */
export const highShelfPower = (root: number, x: number, q: number): number => lowShelfPower(root, 1 / x, q);
