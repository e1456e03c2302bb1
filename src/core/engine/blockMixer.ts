import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../dsp/blocks';
import { startKernel } from '../dsp/kernels/load';
import { MIX_BLOCK_BYTES } from '../dsp/kernels/mixBlock/bytes';
import type { HoldRing, HoldRoom } from '../effects/latencyCompensator';
import { addRun, blendRuns, levelRun, sumRun } from './blockMixerReference';

/** The kernel; addresses are bytes. */
interface MixWork {
  sum(run: number): void;
  blend(io: number, wet: number): void;
  add(bus: number, run: number): void;
  level(run: number): void;
  hold(run: number, ring: number, size: number, place: number, delay: number): void;
}

/**
 * What one effect works in, filled anew in each step. All that lie at the same depth share it, so that it stays near.
 */
export interface Scratch {
  readonly wet: StereoBlock;
  /** Its input while that is shut or opened. */
  readonly faded: StereoBlock;
}

const FIGURES = 16;
const RUN_FIGURES = 2 * STEP_FRAMES;
/** So many runs lie in the engine's memory, a quarter of a megabyte; more lie elsewhere, and take longer. */
const RUNS = 255;
/**
 * Samples of each side of a ring, as the kernel says, and how many rings there are; sounds that must be held back
 * longer, or that come after, take longer.
 */
const RING_SIDE = 1024;
const RINGS = 32;
const RINGS_AT = 8 * (FIGURES + RUNS * RUN_FIGURES);

/**
 * The memory in which an engine's runs lie, and what is done there with each: four short loops that make up a quarter
 * of a mix's work when TypeScript does them.
 */
export class BlockMixer implements HoldRoom {
  /** What the work is told and tells, as the kernel's source says. */
  private readonly figures: Float64Array;
  /** Nothing but zeros. */
  readonly nothing: StereoBlock;
  private readonly work: MixWork | null;
  private readonly free: StereoBlock[] = [];
  private readonly scratch: Scratch[] = [];
  private taken = 0;
  private readonly freeRings: HoldRing[] = [];

  /** @param withKernel false leaves the work to TypeScript, which tests compare */
  constructor(withKernel = true) {
    const kernel = withKernel ? startKernel(MIX_BLOCK_BYTES, RINGS_AT + RINGS * 16 * RING_SIDE) : null;
    this.work = kernel && (kernel.exports as unknown as MixWork);
    this.figures = kernel ? new Float64Array(kernel.memory.buffer, 0, FIGURES) : new Float64Array(FIGURES);
    this.nothing = this.take();
    if (!kernel) return;
    const side = (at: number): Float64Array => new Float64Array(kernel.memory.buffer, at, RING_SIDE);
    for (let ring = 0; ring < RINGS; ring += 1) {
      const at = RINGS_AT + ring * 16 * RING_SIDE;
      this.freeRings.push({ left: side(at), right: side(at + 8 * RING_SIDE), at });
    }
  }

  /** @returns an empty ring in the engine's memory, or null when there is none left */
  takeRing(): HoldRing | null {
    return this.freeRings.pop() ?? null;
  }

  giveBackRing(ring: HoldRing): void {
    ring.left.fill(0);
    ring.right.fill(0);
    this.freeRings.push(ring);
  }

  /** Holds a run of the engine's memory back by means of a ring, in place: as `WholeDelay` writes and reads. */
  hold(run: StereoBlock, ring: HoldRing, size: number, place: number, delay: number): void {
    this.work!.hold(run.at, ring.at, size, place, delay);
  }

  /** @returns an empty run */
  take(): StereoBlock {
    const returned = this.free.pop();
    if (returned || !this.work || this.taken === RUNS) return returned ?? makeStereoBlock();
    const at = 8 * (FIGURES + this.taken * RUN_FIGURES);
    this.taken += 1;
    const side = (from: number): Float64Array => new Float64Array(this.figures.buffer, from, STEP_FRAMES);
    return { left: side(at), right: side(at + 8 * STEP_FRAMES), at };
  }

  /** Takes back a run that nothing reads any more. */
  giveBack(run: StereoBlock): void {
    if (run.at < 0) return;
    run.left.fill(0);
    run.right.fill(0);
    this.free.push(run);
  }

  /** @param depth how many effects lie around it */
  scratchAt(depth: number): Scratch {
    for (let i = this.scratch.length; i <= depth; i += 1) this.scratch.push({ wet: this.take(), faded: this.take() });
    return this.scratch[depth]!;
  }

  /**
   * Tells the work that comes its gains at the ends of the run, between which they move in straight lines: as `blend`,
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
  finite(run: StereoBlock): boolean {
    if (this.work && run.at >= 0) this.work.sum(run.at);
    else sumRun(this.figures, run);
    return Number.isFinite(this.figures[4]!);
  }

  /** Mixes `wet` into `io`: the gains are those of `io`, then of `wet`. */
  blend(io: StereoBlock, wet: StereoBlock): void {
    if (this.work && io.at >= 0 && wet.at >= 0) this.work.blend(io.at, wet.at);
    else blendRuns(this.figures, io, wet);
  }

  /** Adds `run` to `bus` at the first of the gains. */
  add(bus: StereoBlock, run: StereoBlock): void {
    if (this.work && bus.at >= 0 && run.at >= 0) this.work.add(bus.at, run.at);
    else addRun(this.figures, bus, run);
  }

  /** Takes a run in single precision and levels its sides: the gains are those of left, then of right. */
  level(run: StereoBlock): void {
    if (this.work && run.at >= 0) this.work.level(run.at);
    else levelRun(this.figures, run);
  }
}
