/**
 * A delay line for whole samples. Only as much of its ring is in use as the present delays need, so that short delays
 * stay in the processor's cache however long the longest delay may be. Short delays may use a ring that the caller
 * provides, until a longer delay is reserved.
 */
export class IntegerDelayLine {
  /** Where the next block is written. */
  writeIndex = 0;
  private readonly largeRing: Float64Array;
  private ring: Float64Array;
  private mask: number;

  /**
   * @param maxDelay longest delay in samples
   * @param blockFrames samples of every write and read, a power of two
   * @param smallRing ring for short delays; its length is a power of two and at least two blocks
   */
  constructor(
    maxDelay: number,
    private readonly blockFrames: number,
    private readonly smallRing: Float64Array | null = null,
  ) {
    this.largeRing = new Float64Array(ringSizeFor(maxDelay, blockFrames));
    this.ring = smallRing ?? this.largeRing;
    this.mask = 2 * blockFrames - 1;
  }

  /** Samples of the ring that are in use. */
  get size(): number {
    return this.mask + 1;
  }

  get usesSmallRing(): boolean {
    return this.ring === this.smallRing;
  }

  clear(): void {
    this.ring.fill(0);
    if (this.smallRing && this.ring !== this.smallRing) {
      this.ring = this.smallRing;
      this.ring.fill(0);
    }
    this.writeIndex = 0;
    this.mask = 2 * this.blockFrames - 1;
  }

  /**
   * Makes room for a delay; earlier samples stay readable.
   * @param delay in samples, up to `maxDelay`
   * @returns the longest delay that can be read before the next write
   */
  reserve(delay: number): number {
    const { writeIndex } = this;
    const size = this.size;
    const needed = ringSizeFor(delay, this.blockFrames);
    if (needed > size) {
      const { largeRing } = this;
      if (needed > this.ring.length) {
        for (let i = 0; i < size; i += 1) largeRing[i] = this.ring[i]!;
        this.ring = largeRing;
      }
      // Samples from the write index on are the oldest: in the longer ring they are at its end.
      this.ring.copyWithin(needed - size + writeIndex, writeIndex, size);
      this.mask = needed - 1;
    }
    return size - this.blockFrames;
  }

  write(input: Float64Array): void {
    const { ring, writeIndex, blockFrames } = this;
    for (let i = 0; i < blockFrames; i += 1) ring[writeIndex + i] = input[i]!;
    this.advance();
  }

  /** Advances the write index past a block that the caller wrote into the ring itself. */
  advance(): void {
    this.writeIndex = (this.writeIndex + this.blockFrames) & this.mask;
  }

  /** Reads the last block written, delayed by so many samples. */
  read(delay: number, out: Float64Array): void {
    const { ring, mask, blockFrames } = this;
    const from = (this.writeIndex - blockFrames - delay) & mask;
    if (from + blockFrames <= mask + 1) for (let i = 0; i < blockFrames; i += 1) out[i] = ring[from + i]!;
    else for (let i = 0; i < blockFrames; i += 1) out[i] = ring[(from + i) & mask]!;
  }
}

/** The power of two that holds a delay and the block read at it, and at least two blocks. */
function ringSizeFor(delay: number, blockFrames: number): number {
  let size = 2 * blockFrames;
  while (size < delay + blockFrames) size *= 2;
  return size;
}
