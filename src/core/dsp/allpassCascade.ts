import { DENORMAL_GUARD } from './denormals';

/**
 * Allpass sections in a row with a settable gain: smears without colouring.
 * Source: M. R. Schroeder, "Natural Sounding Artificial Reverberation" (1962).
 */
export class AllpassCascade {
  private readonly rings: readonly Float64Array[];
  private readonly places: Int32Array;

  /** @param lengths of the sections in samples */
  constructor(lengths: readonly number[]) {
    this.rings = lengths.map((length) => new Float64Array(Math.max(1, Math.round(length))));
    this.places = new Int32Array(lengths.length);
  }

  clear(): void {
    for (const ring of this.rings) ring.fill(0);
  }

  /**
   * In place. @param from @param to gain of the sections at the start and end of the block, under 1; 0 is a plain delay
   */
  process(io: Float64Array, n: number, from: number, to: number): void {
    for (let section = 0; section < this.rings.length; section += 1)
      this.section(section, io, n, from, (to - from) / n);
  }

  /** Split where the ring wraps, so that the loop need not test for it. */
  private section(index: number, io: Float64Array, n: number, from: number, step: number): void {
    const ring = this.rings[index]!;
    const size = ring.length;
    let at = this.places[index]!;
    let gain = from;
    for (let begin = 0; begin < n;) {
      const end = Math.min(n, begin + size - at);
      for (let i = begin, place = at; i < end; i += 1, place += 1) {
        gain += step;
        const delayed = ring[place]!;
        const into = io[i]! - gain * delayed + DENORMAL_GUARD - DENORMAL_GUARD;
        ring[place] = into;
        io[i] = delayed + gain * into;
      }
      at += end - begin;
      if (at === size) at = 0;
      begin = end;
    }
    this.places[index] = at;
  }
}
