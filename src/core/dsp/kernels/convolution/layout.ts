/** What a partitioned convolution is made of; addresses are bytes in `cells`. */
export interface ConvolutionWork {
  /**
   * Passes `from` until `until` of the `count` passes of a complex transform, to and fro between two places so that the
   * last ends at `re` and `im`.
   */
  passes(
    from: number,
    until: number,
    count: number,
    size: number,
    re: number,
    im: number,
    otherRe: number,
    otherIm: number,
    turns: number,
  ): void;
  /**
   * Past input times impulse, summed over `count` partitions, for the bins from `from` until `until`, multiples of
   * four: the whole sums of this block, and in `ahead` those of the next block without its own input. A spectrum holds,
   * for four bins at a time, left re, left im, right re and right im, with two real figures in bin 0. All `count`
   * spectra lie in each other: four bins of each in turn, then the next four, so that what is read goes one way through
   * memory. The past is a ring of them, the newest at `newest`; the sums are one spectrum.
   */
  multiply(
    from: number,
    until: number,
    sums: number,
    ahead: number,
    past: number,
    impulse: number,
    count: number,
    newest: number,
  ): void;
  /** As `multiply`, with what was summed ahead at the last block: only the newest input is left to be multiplied. */
  complete(
    from: number,
    until: number,
    sums: number,
    ahead: number,
    past: number,
    impulse: number,
    count: number,
    newest: number,
  ): void;
  /** Copies figures, a multiple of sixteen. */
  copy(to: number, from: number, figures: number): void;
  /** Copies 64 figures of each side, the right behind the left, and empties as many at `out`. */
  enter(left: number, right: number, from: number, out: number): void;
  /** Adds 64 figures. */
  addStep(to: number, from: number): void;
  /**
   * Takes the spectrum of both sides out of the transform of left + i right, to one of `count` that are in each other.
   */
  part(size: number, re: number, im: number, to: number, count: number): void;
  /** The way back, scaled, with re and im changed over. */
  join(size: number, from: number, re: number, im: number, scale: number): void;
}
