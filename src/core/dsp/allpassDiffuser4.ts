import { STEP_FRAMES } from './blocks';
import { joinKernel, type KernelRoom } from './kernels/load';
import { DIFFUSER_BYTES } from './kernels/diffuser/bytes';
import { DENORMAL_GUARD } from './denormals';

export const FOUR = 4;
/** Byte offsets from its base address; the same as in kernels/diffuser/kernel.as.ts. */
const SIZES_AT = 0;
const PLACES_AT = 16;
const RINGS_AT = 32;
const GAINS_AT = 48;
const IO_AT = 128;
const SMEARED_AT = IO_AT + 8 * STEP_FRAMES;
const FIRST_RING_AT = SMEARED_AT + 8 * STEP_FRAMES;

interface Work {
  smear(base: number, n: number): void;
  blend(base: number, n: number, from: number, step: number): void;
}

/**
 * Four Schroeder allpass sections in series: they spread an impulse in time and leave its magnitude spectrum flat.
 * Source: M. R. Schroeder, "Natural Sounding Artificial Reverberation" (1962).
 */
export class AllpassDiffuser4 {
  /** Samples to be diffused, in place; `io` is a second block, with which the result may be blended. */
  readonly smeared: Float64Array;
  readonly io: Float64Array;
  /** Feedback gains of the four sections: a ring takes its input plus its output times the gain. */
  readonly gains: Float64Array;
  private readonly base: number;
  private readonly sizes: Int32Array;
  private readonly writeIndexes: Int32Array;
  private readonly starts: Int32Array;
  private readonly rings: Float64Array;
  private readonly work: Work | null;
  /** No section is shorter than a block, so that the kernel never reads what it has just written. */
  private long = true;

  /**
   * @param most samples of all rings together
   * @param home memory of a kernel with room for it; null runs the TypeScript version
   */
  constructor(most: number, home: KernelRoom | null) {
    const kernel = home ? joinKernel(DIFFUSER_BYTES, home.memory) : null;
    const buffer = home && kernel ? home.memory.buffer : new ArrayBuffer(AllpassDiffuser4.bytesFor(most));
    this.base = home && kernel ? home.at : 0;
    this.work = kernel ? (kernel.exports as unknown as Work) : null;
    const { base } = this;
    this.sizes = new Int32Array(buffer, base + SIZES_AT, FOUR);
    this.writeIndexes = new Int32Array(buffer, base + PLACES_AT, FOUR);
    this.starts = new Int32Array(buffer, base + RINGS_AT, FOUR);
    this.gains = new Float64Array(buffer, base + GAINS_AT, FOUR);
    this.io = new Float64Array(buffer, base + IO_AT, STEP_FRAMES);
    this.smeared = new Float64Array(buffer, base + SMEARED_AT, STEP_FRAMES);
    this.rings = new Float64Array(buffer, base + FIRST_RING_AT, most);
  }

  /** Bytes that it occupies, a multiple of sixteen. @param most samples of all rings together */
  static bytesFor(most: number): number {
    return Math.ceil((FIRST_RING_AT + 8 * most) / 16) * 16;
  }

  /** Lengths of sections in samples, from seconds. */
  static sizesOf(seconds: readonly number[], sampleRate: number): number[] {
    return seconds.map((each) => Math.max(1, Math.round(each * sampleRate)));
  }

  /** Sets the lengths of its sections, in samples, and clears them. */
  take(sizes: readonly number[]): void {
    let start = FIRST_RING_AT;
    this.long = true;
    for (let section = 0; section < FOUR; section += 1) {
      this.sizes[section] = sizes[section]!;
      this.starts[section] = start;
      start += 8 * sizes[section]!;
      if (sizes[section]! < STEP_FRAMES) this.long = false;
    }
    this.writeIndexes.fill(0);
    this.clear();
  }

  clear(): void {
    this.rings.fill(0);
  }

  /** Diffuses `n` samples. @param step increment of the gains per sample */
  smear(n: number, step = 0): void {
    if (this.work && this.long && step === 0) this.work.smear(this.base, n);
    else for (let section = 0; section < FOUR; section += 1) this.section(section, n, step);
  }

  /** Crossfades the result into `io`. @param from its mix before the first sample */
  blend(n: number, from: number, step: number): void {
    if (this.work) {
      this.work.blend(this.base, n, from, step);
      return;
    }
    const { io, smeared } = this;
    let share = from;
    for (let i = 0; i < n; i += 1) {
      share += step;
      io[i] = io[i]! + (smeared[i]! - io[i]!) * share;
    }
  }

  /** Split where a ring wraps, so that the inner loop does not test for it. */
  private section(index: number, n: number, step: number): void {
    const { smeared, rings } = this;
    const start = (this.starts[index]! - FIRST_RING_AT) / 8;
    const size = this.sizes[index]!;
    let gain = this.gains[index]!;
    let at = this.writeIndexes[index]!;
    for (let from = 0; from < n;) {
      const end = Math.min(n, from + size - at);
      for (let i = from, place = start + at; i < end; i += 1, place += 1) {
        gain += step;
        const delayed = rings[place]!;
        const into = smeared[i]! + gain * delayed + DENORMAL_GUARD - DENORMAL_GUARD;
        rings[place] = into;
        smeared[i] = delayed - gain * into;
      }
      at += end - from;
      if (at === size) at = 0;
      from = end;
    }
    this.writeIndexes[index] = at;
  }
}
