/**
 * A ring of samples, read at whole delays. Only the part of it that the present delays need is in use, so that short
 * delays stay in the processor's cache however long the longest may be. Short ones may lie in a ring that is given,
 * until a longer one is wanted.
 */
export class WholeDelay {
  /** Where the next run is written. */
  place = 0;
  private readonly large: Float64Array;
  private ring: Float64Array;
  private mask: number;

  /**
   * @param longest longest delay in samples  @param run samples of every write and read, a power of two
   * @param small a ring for short delays, of a power of two of samples and at least two runs
   */
  constructor(
    longest: number,
    private readonly run: number,
    private readonly small: Float64Array | null = null,
  ) {
    this.large = new Float64Array(sizeFor(longest, run));
    this.ring = small ?? this.large;
    this.mask = 2 * run - 1;
  }

  /** Samples in use. */
  get size(): number {
    return this.mask + 1;
  }

  /** True while all lies in the ring that was given. */
  get isSmall(): boolean {
    return this.ring === this.small;
  }

  clear(): void {
    this.ring.fill(0);
    this.ring = this.small ?? this.large;
    this.ring.fill(0);
    this.place = 0;
    this.mask = 2 * this.run - 1;
  }

  /**
   * Makes the delay readable once that much has been written; what is held now stays readable.
   * @param delay in samples, up to the longest
   * @returns how many samples back can be read at least, if so many were written
   */
  reach(delay: number): number {
    const { place } = this;
    const held = this.size;
    const size = sizeFor(delay, this.run);
    if (size > held) {
      const { large } = this;
      if (size > this.ring.length) {
        for (let i = 0; i < held; i += 1) large[i] = this.ring[i]!;
        this.ring = large;
      }
      // What lies behind the write place moves to the end of what is in use now, where the larger ring looks for it.
      this.ring.copyWithin(size - held + place, place, held);
      this.mask = size - 1;
    }
    return held - this.run;
  }

  write(input: Float64Array): void {
    const { ring, place, run } = this;
    for (let i = 0; i < run; i += 1) ring[place + i] = input[i]!;
    this.advance();
  }

  /** Counts a run as written that was put into the ring otherwise. */
  advance(): void {
    this.place = (this.place + this.run) & this.mask;
  }

  /** Reads the run that was written last, so many samples late. */
  read(delay: number, out: Float64Array): void {
    const { ring, mask, run } = this;
    const at = (this.place - run - delay) & mask;
    if (at + run <= mask + 1) for (let i = 0; i < run; i += 1) out[i] = ring[at + i]!;
    else for (let i = 0; i < run; i += 1) out[i] = ring[(at + i) & mask]!;
  }
}

/** A power of two that holds the delay, the run it is read over and the run being written. */
function sizeFor(delay: number, run: number): number {
  let size = 2 * run;
  while (size < delay + run) size *= 2;
  return size;
}
