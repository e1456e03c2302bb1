/** First-order shelves by the bilinear transform, gain 1 on their other side. Figures b0, b1, a1 of `y = b0 x + b1 x' - a1 y'`. */
export interface Section {
  b0: number;
  b1: number;
  a1: number;
}

/** @param gain linear, below the middle  @param t tan(pi f / fs) of the middle, where half the decibels are reached */
export function lowShelf(out: Section, gain: number, t: number): void {
  const root = Math.sqrt(gain);
  const down = 1 + t / root;
  out.b0 = (1 + t * root) / down;
  out.b1 = (t * root - 1) / down;
  out.a1 = (t / root - 1) / down;
}

/** @param gain linear, above the middle */
export function highShelf(out: Section, gain: number, t: number): void {
  const root = Math.sqrt(gain);
  const down = 1 / root + t;
  out.b0 = (root + t) / down;
  out.b1 = (t - root) / down;
  out.a1 = (t - 1 / root) / down;
}

/** Gain of a section at the angle whose cosine is given. */
export function sectionGain({ b0, b1, a1 }: Section, cosine: number): number {
  return Math.sqrt((b0 * b0 + b1 * b1 + 2 * b0 * b1 * cosine) / (1 + a1 * a1 + 2 * a1 * cosine));
}
