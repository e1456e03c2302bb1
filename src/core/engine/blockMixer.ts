import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../dsp/blocks';
import { startKernel } from '../dsp/kernels/load';
import { MIX_BLOCK_BYTES } from '../dsp/kernels/mixBlock/bytes';
import type { DelayRing, DelayRingPool } from '../effects/latencyCompensator';
import { addBlock, blendBlocks, levelBlock, sumBlock } from './blockMixerReference';
import { addWithDelayedRamp, levelWithDelayedRamp } from './delayedRamps';

/** The kernel; addresses are bytes. */
interface MixWork {
  sum(block: number): void;
  blend(io: number, wet: number): void;
  add(bus: number, block: number): void;
  level(block: number): void;
  delay(block: number, ring: number, size: number, writeIndex: number, delay: number): void;
}

/**
 * What one effect works in, filled anew in each step. All that are at the same depth share it, so that it stays near.
 */
export interface Scratch {
  readonly wet: StereoBlock;
  /** Its input while that is shut or opened. */
  readonly faded: StereoBlock;
}

const FIGURES = 16;
const BLOCK_FIGURES = 2 * STEP_FRAMES;
/** Blocks in the mixer's memory, a quarter of a megabyte; more are separate arrays, mixed by TypeScript. */
const BLOCKS = 255;
/** Samples of each side of a delay ring, as in the kernel. */
const RING_SIDE = 1024;
/** Channels beyond these, and longer delays, are delayed by TypeScript. */
const RINGS = 32;
const RINGS_AT = 8 * (FIGURES + BLOCKS * BLOCK_FIGURES);

/**
 * Owns the memory of an engine's stereo blocks, and mixes, levels and delays them there by a WebAssembly kernel. Done in
 * TypeScript these short loops are a quarter of a mix's work.
 */
export class BlockMixer implements DelayRingPool {
  /** What the work is told and tells, as the kernel's source says. */
  private readonly figures: Float64Array;
  /** Nothing but zeros. */
  readonly nothing: StereoBlock;
  private readonly work: MixWork | null;
  private readonly freeBlocks: StereoBlock[] = [];
  private readonly scratch: Scratch[] = [];
  private taken = 0;
  private readonly freeRings: DelayRing[] = [];

  /** @param withKernel false leaves the work to TypeScript, which tests compare */
  constructor(withKernel = true) {
    const kernel = withKernel ? startKernel(MIX_BLOCK_BYTES, RINGS_AT + RINGS * 16 * RING_SIDE) : null;
    this.work = kernel && (kernel.exports as unknown as MixWork);
    this.figures = kernel ? new Float64Array(kernel.memory.buffer, 0, FIGURES) : new Float64Array(FIGURES);
    this.nothing = this.allocate();
    if (!kernel) return;
    const side = (at: number): Float64Array => new Float64Array(kernel.memory.buffer, at, RING_SIDE);
    for (let ring = 0; ring < RINGS; ring += 1) {
      const at = RINGS_AT + ring * 16 * RING_SIDE;
      this.freeRings.push({ left: side(at), right: side(at + 8 * RING_SIDE), at });
    }
  }

  /** @returns an empty ring in the engine's memory, or null when there is none left */
  allocateRing(): DelayRing | null {
    return this.freeRings.pop() ?? null;
  }

  freeRing(ring: DelayRing): void {
    ring.left.fill(0);
    ring.right.fill(0);
    this.freeRings.push(ring);
  }

  /** Same result as writing to and reading from an `IntegerDelayLine` for each side; only for blocks of this mixer. */
  delayBlock(block: StereoBlock, ring: DelayRing, size: number, writeIndex: number, delay: number): void {
    this.work!.delay(block.at, ring.at, size, writeIndex, delay);
  }

  /** @returns a block of zeros; in the mixer's memory while there is room */
  allocate(): StereoBlock {
    const returned = this.freeBlocks.pop();
    if (returned || !this.work || this.taken === BLOCKS) return returned ?? makeStereoBlock();
    const at = 8 * (FIGURES + this.taken * BLOCK_FIGURES);
    this.taken += 1;
    const side = (from: number): Float64Array => new Float64Array(this.figures.buffer, from, STEP_FRAMES);
    return { left: side(at), right: side(at + 8 * STEP_FRAMES), at };
  }

  /** Takes back a block that nothing reads any more. */
  free(block: StereoBlock): void {
    if (block.at < 0) return;
    block.left.fill(0);
    block.right.fill(0);
    this.freeBlocks.push(block);
  }

  /** @param depth how many effects are around it */
  scratchAt(depth: number): Scratch {
    for (let i = this.scratch.length; i <= depth; i += 1)
      this.scratch.push({ wet: this.allocate(), faded: this.allocate() });
    return this.scratch[depth]!;
  }

  /**
   * Tells the work that comes its gains at the ends of the block, between which they move in straight lines: as `blend`,
   * `add` and `level` say.
   */
  gains(from: number, to: number, otherFrom: number, otherTo: number): void {
    const { figures } = this;
    figures[0] = from;
    figures[1] = (to - from) / STEP_FRAMES;
    figures[2] = otherFrom;
    figures[3] = (otherTo - otherFrom) / STEP_FRAMES;
  }

  /** Peak of `io` before the last blend, or of left after the last levelling. */
  get peak(): number {
    return this.figures[4]!;
  }

  /** Peak of what the last blend added, or of right after the last levelling. */
  get otherPeak(): number {
    return this.figures[5]!;
  }

  /** After the last levelling, left squared, summed. */
  get leftPower(): number {
    return this.figures[6]!;
  }

  get rightPower(): number {
    return this.figures[7]!;
  }

  /** Left times right, summed. */
  get commonPower(): number {
    return this.figures[8]!;
  }

  /** True when every sample is a finite number. */
  finite(block: StereoBlock): boolean {
    if (this.work && block.at >= 0) this.work.sum(block.at);
    else sumBlock(this.figures, block);
    return Number.isFinite(this.figures[4]!);
  }

  /** Mixes `wet` into `io`: the gains are those of `io`, then of `wet`. */
  blend(io: StereoBlock, wet: StereoBlock): void {
    if (this.work && io.at >= 0 && wet.at >= 0) this.work.blend(io.at, wet.at);
    else blendBlocks(this.figures, io, wet);
  }

  /** Adds `block` to `bus` at the first of the gains. */
  add(bus: StereoBlock, block: StereoBlock): void {
    if (this.work && bus.at >= 0 && block.at >= 0) this.work.add(bus.at, block.at);
    else addBlock(this.figures, bus, block);
  }

  /** Takes a block in single precision and levels its sides: the gains are those of left, then of right. */
  level(block: StereoBlock): void {
    if (this.work && block.at >= 0) this.work.level(block.at);
    else levelBlock(this.figures, block);
  }

  /** Like `add`, the gain moving from a sample of the block on, 1 to STEP_FRAMES. */
  addWithDelayedRamp(bus: StereoBlock, block: StereoBlock, offset: number): void {
    addWithDelayedRamp(this.figures, bus, block, offset);
  }

  /** Like `level`, the gains moving from a sample of the block on. */
  levelWithDelayedRamp(block: StereoBlock, offset: number): void {
    levelWithDelayedRamp(this.figures, block, offset);
  }
}
