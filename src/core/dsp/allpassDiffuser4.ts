import { STEP_FRAMES } from './blocks';
import { joinKernel, type KernelRoom } from './kernels/load';
import { DIFFUSER_BYTES } from './kernels/diffuser/bytes';

export const FOUR = 4;
/** Where things lie, in bytes from its beginning; the same figures stand in kernels/diffuser/kernel.as.ts. */
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
 * Four allpass sections in a row: they smear a click into a wash without colouring it.
 * Source: M. R. Schroeder, "Natural Sounding Artificial Reverberation" (1962).
 */
export class AllpassDiffuser4 {
  /** What is smeared, in place, and room for a run beside it that may be blended with it. */
  readonly smeared: Float64Array;
  readonly io: Float64Array;
  /** Of the four sections; what goes into a ring is the input and so much of what comes out of it. */
  readonly gains: Float64Array;
  private readonly base: number;
  private readonly sizes: Int32Array;
  private readonly places: Int32Array;
  private readonly starts: Int32Array;
  private readonly rings: Float64Array;
  private readonly work: Work | null;
  /** No section is shorter than a run: the kernel reads nothing that it has just written. */
  private long = true;

  /**
   * @param most figures that the rings take together
   * @param home memory of a kernel's with room for it; left out, TypeScript does the work
   */
  constructor(most: number, home: KernelRoom | null) {
    const kernel = home ? joinKernel(DIFFUSER_BYTES, home.memory) : null;
    const buffer = home && kernel ? home.memory.buffer : new ArrayBuffer(AllpassDiffuser4.bytesFor(most));
    this.base = home && kernel ? home.at : 0;
    this.work = kernel ? (kernel.exports as unknown as Work) : null;
    const { base } = this;
    this.sizes = new Int32Array(buffer, base + SIZES_AT, FOUR);
    this.places = new Int32Array(buffer, base + PLACES_AT, FOUR);
    this.starts = new Int32Array(buffer, base + RINGS_AT, FOUR);
    this.gains = new Float64Array(buffer, base + GAINS_AT, FOUR);
    this.io = new Float64Array(buffer, base + IO_AT, STEP_FRAMES);
    this.smeared = new Float64Array(buffer, base + SMEARED_AT, STEP_FRAMES);
    this.rings = new Float64Array(buffer, base + FIRST_RING_AT, most);
  }

  /** Bytes that it takes, a multiple of sixteen. @param most figures that the rings take together */
  static bytesFor(most: number): number {
    return Math.ceil((FIRST_RING_AT + 8 * most) / 16) * 16;
  }

  /** Sizes of sections of so many seconds, in samples. */
  static sizesOf(seconds: readonly number[], sampleRate: number): number[] {
    return seconds.map((each) => Math.max(1, Math.round(each * sampleRate)));
  }

  /** Takes the lengths of its sections, in samples, and is empty. */
  take(sizes: readonly number[]): void {
    let start = FIRST_RING_AT;
    this.long = true;
    for (let section = 0; section < FOUR; section += 1) {
      this.sizes[section] = sizes[section]!;
      this.starts[section] = start;
      start += 8 * sizes[section]!;
      if (sizes[section]! < STEP_FRAMES) this.long = false;
    }
    this.places.fill(0);
    this.clear();
  }

  clear(): void {
    this.rings.fill(0);
  }

  /** Smears `n` samples. @param step by which the gains grow with each */
  smear(n: number, step = 0): void {
    if (this.work && this.long && step === 0) this.work.smear(this.base, n);
    else for (let section = 0; section < FOUR; section += 1) this.section(section, n, step);
  }

  /** Blends what is smeared into `io`. @param from share before the first sample */
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

  /** In pieces that end where the ring does, so that the loop need not look for its end. */
  private section(index: number, n: number, step: number): void {
    const { smeared, rings } = this;
    const start = (this.starts[index]! - FIRST_RING_AT) / 8;
    const size = this.sizes[index]!;
    let gain = this.gains[index]!;
    let at = this.places[index]!;
    for (let from = 0; from < n;) {
      const end = Math.min(n, from + size - at);
      for (let i = from, place = start + at; i < end; i += 1, place += 1) {
        gain += step;
        const delayed = rings[place]!;
        const into = smeared[i]! + gain * delayed + 1e-15 - 1e-15;
        rings[place] = into;
        smeared[i] = delayed - gain * into;
      }
      at += end - from;
      if (at === size) at = 0;
      from = end;
    }
    this.places[index] = at;
  }
}
