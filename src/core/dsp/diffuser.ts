import { AllpassDiffuser4, FOUR } from './allpassDiffuser4';
import type { KernelRoom } from './kernels/load';
import { copyBlock } from './blocks';

/** Section lengths without common factors (Schroeder), none shorter than a block. */
const SECTION_SECONDS = [0.00477, 0.00359, 0.01273, 0.00931] as const;
const GAIN = 0.6;

const sizesAt = (sampleRate: number): number[] => AllpassDiffuser4.sizesOf(SECTION_SECONDS, sampleRate);
const figuresAt = (sampleRate: number): number => sizesAt(sampleRate).reduce((sum, size) => sum + size, 0);

/** Mixes a diffused signal in. */
export class Diffuser {
  private readonly four: AllpassDiffuser4;
  private idle = true;

  /** @param home memory of a kernel's with room for it; left out, TypeScript does the work */
  constructor(sampleRate: number, home: KernelRoom | null = null) {
    this.four = new AllpassDiffuser4(figuresAt(sampleRate), home);
    this.four.take(sizesAt(sampleRate));
  }

  /** Bytes that it takes, a multiple of sixteen. */
  static bytesAt(sampleRate: number): number {
    return AllpassDiffuser4.bytesFor(figuresAt(sampleRate));
  }

  clear(): void {
    this.four.clear();
    this.idle = true;
  }

  /** Skips a block in which nothing passes: what it holds is not heard again. */
  skipBlock(): void {
    this.idle = true;
  }

  /**
   * Mixes the diffused signal in, in place; a linear mix of two unit-gain paths never exceeds unity gain.
   * @param n up to 64
   * @param from
   * @param to mix at the start and end of the block, 0-1
   * @param difference 0-1, turns the gain of every other section to its negative, to decorrelate this side from the
   * other
   */
  process(io: Float64Array, n: number, from: number, to: number, difference: number): void {
    const { four } = this;
    for (let section = 0; section < FOUR; section += 1)
      four.gains[section] = section & 1 ? GAIN : GAIN * (1 - 2 * difference);
    copyBlock(io, four.io);
    if (this.idle) this.enter(n);
    else copyBlock(io, four.smeared);
    four.smear(n);
    four.blend(n, from, (to - from) / n);
    for (let i = 0; i < n; i += 1) io[i] = four.io[i]!;
  }

  /** Starts empty and fades the input in over the block: a step into the sections would leave each as a click. */
  private enter(n: number): void {
    const { io, smeared } = this.four;
    this.clear();
    this.idle = false;
    for (let i = 0; i < n; i += 1) {
      const t = (i + 1) / n;
      smeared[i] = io[i]! * t * t * (3 - 2 * t);
    }
  }
}
