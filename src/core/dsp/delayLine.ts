import { SINC_AHEAD, SINC_BEFORE, SINC_PHASES, SINC_TABLE, SINC_TAPS, sincCoefficients } from './sincTable';

/** Below this many samples the long kernel would need samples not yet written; a cubic serves instead. */
export const SHORT_BELOW = 24;

/** The longest block that can be read at delays of `minDelay` samples or more before its first sample is written. */
export function readableBlock(minDelay: number, most: number): number {
  const block = Math.floor(minDelay) - (minDelay < SHORT_BELOW ? 3 : SINC_AHEAD + 1);
  return block < 1 ? 1 : block > most ? most : block;
}

/** Length of a ring for a longest delay and a longest block: a power of two. */
export function ringSize(maxDelay: number, maxBlock: number): number {
  let size = 64;
  while (size < maxDelay + maxBlock + SINC_TAPS) size *= 2;
  return size;
}

/**
 * A ring of single-precision samples that is read at any fractional delay behind the write index. Reads come before the
 * write of the same block: read `n`, then write `n`.
 */
export class DelayLine {
  readonly ring: Float32Array;
  readonly mask: number;
  /** Where the next sample is written. */
  place = 0;
  private readonly kernel = new Float64Array(SINC_TAPS);
  private readonly block: Float64Array;

  /**
   * @param maxDelay longest delay in samples
   * @param maxBlock longest block of samples per call
   * @param ring where the samples are, of `ringSize`
   */
  constructor(maxDelay: number, maxBlock: number, ring = new Float32Array(ringSize(maxDelay, maxBlock))) {
    this.ring = ring;
    this.mask = ring.length - 1;
    this.block = new Float64Array(maxBlock + SINC_TAPS);
  }

  clear(): void {
    this.ring.fill(0);
    this.place = 0;
  }

  write(input: Float64Array, n: number): void {
    const { ring, mask } = this;
    const at = this.place;
    if (at + n <= ring.length) for (let i = 0; i < n; i += 1) ring[at + i] = input[i]!;
    else for (let i = 0; i < n; i += 1) ring[(at + i) & mask] = input[i]!;
    this.place = (at + n) & mask;
  }

  /** Index of the first of `n` samples at a whole delay when they are contiguous in the ring; else -1. */
  contiguousAt(delay: number, n: number): number {
    const size = this.ring.length;
    const at = (this.place - delay) & this.mask;
    return delay === Math.floor(delay) && at + n <= size ? at : -1;
  }

  /**
   * Fractional part of the read position at a delay, 0-1; a function of the delay alone, so that it is the same at any
   * write index.
   */
  static fractionAt(delay: number): number {
    return Math.ceil(delay) - delay;
  }

  /**
   * Index of the first sample under the kernel for `n` samples at a delay, when all of them are contiguous; else -1.
   */
  windowAt(delay: number, n: number): number {
    const at = (this.place - Math.ceil(delay) - SINC_BEFORE) & this.mask;
    return at + n + SINC_TAPS <= this.ring.length ? at : -1;
  }

  /** True when the next `n` samples are written contiguously. */
  hasRoom(n: number): boolean {
    return this.place + n <= this.ring.length;
  }

  /** Advances the write index past `n` samples that the caller has written into the ring itself. */
  advance(n: number): void {
    this.place = (this.place + n) & this.mask;
  }

  /** Reads `n` samples at one unchanging delay: exact copies when it is whole, one fixed kernel when it is not. */
  readFixed(delay: number, n: number, out: Float64Array): void {
    const { ring, mask, block, kernel } = this;
    const from = this.place - delay;
    const whole = Math.floor(from);
    const fraction = from - whole;
    if (fraction < 1e-7 || fraction > 1 - 1e-7) {
      const at = (fraction > 0.5 ? whole + 1 : whole) & mask;
      if (at + n <= ring.length) for (let i = 0; i < n; i += 1) out[i] = ring[at + i]!;
      else for (let i = 0; i < n; i += 1) out[i] = ring[(at + i) & mask]!;
      return;
    }
    if (delay < SHORT_BELOW) {
      for (let i = 0; i < n; i += 1) out[i] = this.cubic(whole + i, fraction);
      return;
    }
    sincCoefficients(fraction, kernel);
    const at = (whole - SINC_BEFORE) & mask;
    const length = n + SINC_TAPS - 1;
    if (at + length <= ring.length) for (let i = 0; i < length; i += 1) block[i] = ring[at + i]!;
    else for (let i = 0; i < length; i += 1) block[i] = ring[(at + i) & mask]!;
    const k0 = kernel[0]!,
      k1 = kernel[1]!,
      k2 = kernel[2]!,
      k3 = kernel[3]!,
      k4 = kernel[4]!,
      k5 = kernel[5]!,
      k6 = kernel[6]!,
      k7 = kernel[7]!;
    const k8 = kernel[8]!,
      k9 = kernel[9]!,
      k10 = kernel[10]!,
      k11 = kernel[11]!,
      k12 = kernel[12]!,
      k13 = kernel[13]!,
      k14 = kernel[14]!,
      k15 = kernel[15]!;
    // Four samples per iteration share their nineteen loads: most of the time of a plain loop goes into reading. Up to
    // three past `n` are written and not used.
    for (let i = 0; i < n; i += 4) {
      const r0 = block[i + 0]!,
        r1 = block[i + 1]!,
        r2 = block[i + 2]!,
        r3 = block[i + 3]!,
        r4 = block[i + 4]!;
      const r5 = block[i + 5]!,
        r6 = block[i + 6]!,
        r7 = block[i + 7]!,
        r8 = block[i + 8]!,
        r9 = block[i + 9]!;
      const r10 = block[i + 10]!,
        r11 = block[i + 11]!,
        r12 = block[i + 12]!,
        r13 = block[i + 13]!,
        r14 = block[i + 14]!;
      const r15 = block[i + 15]!,
        r16 = block[i + 16]!,
        r17 = block[i + 17]!,
        r18 = block[i + 18]!;
      out[i] =
        k0 * r0 +
        k1 * r1 +
        k2 * r2 +
        k3 * r3 +
        (k4 * r4 + k5 * r5 + k6 * r6 + k7 * r7) +
        (k8 * r8 + k9 * r9 + k10 * r10 + k11 * r11) +
        (k12 * r12 + k13 * r13 + k14 * r14 + k15 * r15);
      out[i + 1] =
        k0 * r1 +
        k1 * r2 +
        k2 * r3 +
        k3 * r4 +
        (k4 * r5 + k5 * r6 + k6 * r7 + k7 * r8) +
        (k8 * r9 + k9 * r10 + k10 * r11 + k11 * r12) +
        (k12 * r13 + k13 * r14 + k14 * r15 + k15 * r16);
      out[i + 2] =
        k0 * r2 +
        k1 * r3 +
        k2 * r4 +
        k3 * r5 +
        (k4 * r6 + k5 * r7 + k6 * r8 + k7 * r9) +
        (k8 * r10 + k9 * r11 + k10 * r12 + k11 * r13) +
        (k12 * r14 + k13 * r15 + k14 * r16 + k15 * r17);
      out[i + 3] =
        k0 * r3 +
        k1 * r4 +
        k2 * r5 +
        k3 * r6 +
        (k4 * r7 + k5 * r8 + k6 * r9 + k7 * r10) +
        (k8 * r11 + k9 * r12 + k10 * r13 + k11 * r14) +
        (k12 * r15 + k13 * r16 + k14 * r17 + k15 * r18);
    }
  }

  /**
   * Reads `n` samples, each at its own delay in samples, by the nearest of the table's phases: within a 4096th of a
   * sample.
   */
  readMoving(delays: Float64Array, n: number, out: Float64Array): void {
    const { ring, mask } = this;
    const table = SINC_TABLE;
    const place = this.place;
    const last = ring.length - SINC_TAPS;
    for (let i = 0; i < n; i += 1) {
      const delay = delays[i]!;
      const from = place + i - delay;
      const whole = Math.floor(from);
      const fraction = from - whole;
      if (delay < SHORT_BELOW) {
        out[i] = this.cubic(whole, fraction);
        continue;
      }
      const row = ((fraction * SINC_PHASES + 0.5) | 0) * SINC_TAPS;
      const at = (whole - SINC_BEFORE) & mask;
      if (at > last) {
        let sum = 0;
        for (let k = 0; k < SINC_TAPS; k += 1) sum += table[row + k]! * ring[(at + k) & mask]!;
        out[i] = sum;
        continue;
      }
      const early =
        table[row + 0]! * ring[at + 0]! +
        table[row + 1]! * ring[at + 1]! +
        table[row + 2]! * ring[at + 2]! +
        table[row + 3]! * ring[at + 3]! +
        table[row + 4]! * ring[at + 4]! +
        table[row + 5]! * ring[at + 5]! +
        table[row + 6]! * ring[at + 6]! +
        table[row + 7]! * ring[at + 7]!;
      out[i] =
        early +
        table[row + 8]! * ring[at + 8]! +
        table[row + 9]! * ring[at + 9]! +
        table[row + 10]! * ring[at + 10]! +
        table[row + 11]! * ring[at + 11]! +
        table[row + 12]! * ring[at + 12]! +
        table[row + 13]! * ring[at + 13]! +
        table[row + 14]! * ring[at + 14]! +
        table[row + 15]! * ring[at + 15]!;
    }
  }

  /** Linear interpolation, for short moving delays that have no sample ahead. */
  readLinear(delays: Float64Array, n: number, out: Float64Array): void {
    const { ring, mask, place } = this;
    for (let i = 0; i < n; i += 1) {
      const from = place + i - delays[i]!;
      const whole = Math.floor(from);
      const here = ring[whole & mask]!;
      out[i] = here + (ring[(whole + 1) & mask]! - here) * (from - whole);
    }
  }

  /** Four-point Lagrange interpolation (Laakso et al., "Splitting the Unit Delay", 1996): needs two samples ahead. */
  private cubic(whole: number, f: number): number {
    const { ring, mask } = this;
    const a = ring[(whole - 1) & mask]!;
    const b = ring[whole & mask]!;
    const c = ring[(whole + 1) & mask]!;
    const d = ring[(whole + 2) & mask]!;
    const p = f + 1;
    const q = f - 1;
    const r = f - 2;
    return (-f * q * r * a) / 6 + (p * q * r * b) / 2 - (p * f * r * c) / 2 + (p * f * q * d) / 6;
  }
}
