import { joinKernel } from './kernels/load';
import { DIFFUSER_BYTES } from './kernels/diffuserBytes';

/** As Schroeder's sections: mutually odd lengths, none shorter than a run. */
const SECTION_SECONDS = [0.00477, 0.00359, 0.01273, 0.00931] as const;
const SECTIONS = SECTION_SECONDS.length;
const GAIN = 0.6;
const MOST_FRAMES = 64;
/** Where things lie, in bytes from its beginning; the same figures stand in kernels/diffuser.as.ts. */
const SIZES_AT = 0;
const PLACES_AT = 16;
const RINGS_AT = 32;
const GAINS_AT = 48;
const IO_AT = 128;
const SMEARED_AT = IO_AT + 8 * MOST_FRAMES;
const FIRST_RING_AT = SMEARED_AT + 8 * MOST_FRAMES;

type Process = (base: number, n: number, entering: boolean | number, blend: number, step: number) => void;

/** Where a diffuser lies in memory that it shares. */
export interface DiffuserHome {
  readonly memory: WebAssembly.Memory;
  readonly at: number;
}

const sizesAt = (sampleRate: number): number[] => SECTION_SECONDS.map((seconds) => Math.max(MOST_FRAMES, Math.round(seconds * sampleRate)));

/**
 * Four allpass sections in a row: smears a click into a wash without colouring it.
 * Source: M. R. Schroeder, "Natural Sounding Artificial Reverberation" (1962).
 */
export class Diffuser {
  private readonly rings: Float64Array[];
  private readonly places: Int32Array;
  private readonly gains: Float64Array;
  private readonly io: Float64Array;
  private readonly smeared: Float64Array;
  private readonly work: Process | null;
  private readonly base: number;
  private idle = true;

  /** @param home memory of a kernel's with room for it; left out, TypeScript does the work */
  constructor(sampleRate: number, home: DiffuserHome | null = null) {
    const sizes = sizesAt(sampleRate);
    const kernel = home ? joinKernel(DIFFUSER_BYTES, home.memory) : null;
    const buffer = home && kernel ? home.memory.buffer : new ArrayBuffer(Diffuser.bytesAt(sampleRate));
    const base = home && kernel ? home.at : 0;
    this.base = base;
    this.work = kernel ? (kernel.exports.process as Process) : null;
    this.places = new Int32Array(buffer, base + PLACES_AT, SECTIONS);
    this.gains = new Float64Array(buffer, base + GAINS_AT, SECTIONS);
    this.io = new Float64Array(buffer, base + IO_AT, MOST_FRAMES);
    this.smeared = new Float64Array(buffer, base + SMEARED_AT, MOST_FRAMES);
    const starts = sizes.map((_, i) => FIRST_RING_AT + 8 * sizes.slice(0, i).reduce((sum, size) => sum + size, 0));
    this.rings = sizes.map((size, i) => new Float64Array(buffer, base + starts[i]!, size));
    new Int32Array(buffer, base + SIZES_AT, SECTIONS).set(sizes);
    new Int32Array(buffer, base + RINGS_AT, SECTIONS).set(starts);
  }

  /** Bytes that it takes, a multiple of sixteen. */
  static bytesAt(sampleRate: number): number {
    return Math.ceil((FIRST_RING_AT + 8 * sizesAt(sampleRate).reduce((sum, size) => sum + size, 0)) / 16) * 16;
  }

  clear(): void {
    for (const ring of this.rings) ring.fill(0);
    this.idle = true;
  }

  /** Nothing passes for now: what it holds is not heard again. */
  rest(): void {
    this.idle = true;
  }

  /**
   * Blends the smeared signal in, in place; a straight blend of two unit-gain paths never exceeds unity.
   * @param n up to 64  @param from @param to blend at the ends of the run, 0-1  @param difference 0-1, turns every other section round to part left from right
   */
  process(io: Float64Array, n: number, from: number, to: number, difference: number): void {
    for (let section = 0; section < SECTIONS; section += 1) this.gains[section] = section & 1 ? GAIN : GAIN * (1 - 2 * difference);
    this.io.set(io);
    const entering = this.idle;
    if (entering) this.enter(n);
    const step = (to - from) / n;
    if (this.work) this.work(this.base, n, entering, from, step);
    else this.smear(n, entering, from, step);
    for (let i = 0; i < n; i += 1) io[i] = this.io[i]!;
  }

  /** Begins empty, and lets the sound in over the run: a step into the sections would come out of each as a click. */
  private enter(n: number): void {
    const { io, smeared } = this;
    this.clear();
    this.idle = false;
    for (let i = 0; i < n; i += 1) {
      const t = (i + 1) / n;
      smeared[i] = io[i]! * t * t * (3 - 2 * t);
    }
  }

  /** What the kernel does, in TypeScript. */
  private smear(n: number, entering: boolean, from: number, step: number): void {
    const { io, smeared } = this;
    if (!entering) smeared.set(io);
    for (let section = 0; section < SECTIONS; section += 1) this.section(section, n);
    let blend = from;
    for (let i = 0; i < n; i += 1) {
      blend += step;
      io[i] = io[i]! + (smeared[i]! - io[i]!) * blend;
    }
  }

  /** In pieces that end where the ring does, so that the loop need not look for its end. */
  private section(index: number, n: number): void {
    const { smeared } = this;
    const ring = this.rings[index]!;
    const gain = this.gains[index]!;
    const size = ring.length;
    let at = this.places[index]!;
    for (let from = 0; from < n; ) {
      const end = Math.min(n, from + size - at);
      for (let i = from, place = at; i < end; i += 1, place += 1) {
        const delayed = ring[place]!;
        const into = smeared[i]! + gain * delayed + 1e-15 - 1e-15;
        ring[place] = into;
        smeared[i] = delayed - gain * into;
      }
      at += end - from;
      if (at === size) at = 0;
      from = end;
    }
    this.places[index] = at;
  }
}
