/**
 * Smallest of the last `length` values, by a queue of candidates (D. Lemire, "Streaming Maximum-Minimum Filter", 2006).
 */
export class SlidingMinimum {
  private readonly values: Float64Array;
  private readonly times: Int32Array;
  private first = 0;
  private count = 0;
  private now = 0;

  constructor(longest: number) {
    this.values = new Float64Array(longest + 1);
    this.times = new Int32Array(longest + 1);
  }

  clear(): void {
    this.first = 0;
    this.count = 0;
    this.now = 0;
  }

  /** A run of values, in place. */
  run(values: Float64Array, n: number, length: number): void {
    for (let i = 0; i < n; i += 1) values[i] = this.next(values[i]!, length);
  }

  private next(value: number, length: number): number {
    const size = this.values.length;
    while (this.count > 0) {
      let last = this.first + this.count - 1;
      if (last >= size) last -= size;
      if (this.values[last]! < value) break;
      this.count -= 1;
    }
    let end = this.first + this.count;
    if (end >= size) end -= size;
    this.values[end] = value;
    this.times[end] = this.now;
    this.count += 1;
    while (this.times[this.first]! <= this.now - length) {
      this.first += 1;
      if (this.first === size) this.first = 0;
      this.count -= 1;
    }
    this.now += 1;
    // The count of samples starts again long before it leaves its range; times are only compared with one another.
    if (this.now === 1 << 29) this.rebase();
    return this.values[this.first]!;
  }

  private rebase(): void {
    for (let i = 0; i < this.times.length; i += 1) this.times[i] = this.times[i]! - this.now;
    this.now = 0;
  }
}

/** Mean of the last `length` values. */
export class SlidingMean {
  private readonly ring: Float64Array;
  private writeIndex = 0;
  private sum = 0;
  private length = 1;

  constructor(longest: number) {
    this.ring = new Float64Array(longest);
  }

  /** All values are 1. */
  clear(length: number): void {
    this.ring.fill(1);
    this.writeIndex = 0;
    this.length = length;
    this.sum = length;
  }

  /** A run of values, in place. */
  run(values: Float64Array, n: number): void {
    for (let i = 0; i < n; i += 1) values[i] = this.next(values[i]!);
  }

  private next(value: number): number {
    const { ring, length } = this;
    this.sum += value - ring[this.writeIndex]!;
    ring[this.writeIndex] = value;
    this.writeIndex += 1;
    if (this.writeIndex >= length) {
      this.writeIndex = 0;
      // Summed anew once per window, so that rounding errors do not accumulate.
      let sum = 0;
      for (let i = 0; i < length; i += 1) sum += ring[i]!;
      this.sum = sum;
    }
    return this.sum / length;
  }
}
