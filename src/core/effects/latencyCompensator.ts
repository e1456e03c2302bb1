import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../dsp/blocks';
import { IntegerDelayLine } from '../dsp/integerDelayLine';

/** Longest delay in seconds: four spectral pitch shifters in series. */
const MAX_SECONDS = 0.6;

/** A ring for short delays, one side after the other, in the memory that a pool owns. */
export interface DelayRing {
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** Address in bytes. */
  readonly at: number;
}

/** Lends rings in the memory that blocks are in, and delays blocks there faster than TypeScript can. */
export interface DelayRingPool {
  /** @returns an empty ring, or null when all are in use */
  allocateRing(): DelayRing | null;
  freeRing(ring: DelayRing): void;
  /**
   * Delays a block in place.
   * @param size samples of each side of the ring in use, a power of two
   * @param writeIndex a multiple of STEP_FRAMES
   * @param delay in samples, up to `size - STEP_FRAMES`
   */
  delayBlock(block: StereoBlock, ring: DelayRing, size: number, writeIndex: number, delay: number): void;
}

/**
 * Delays a stereo signal by whole samples, so that it stays in time with a parallel signal that passes effects with
 * latency. A new delay is crossfaded to over one step, once enough samples have been written to be read at it.
 */
export class LatencyCompensator {
  private readonly left: IntegerDelayLine;
  private readonly right: IntegerDelayLine;
  private readonly maxDelay: number;
  private readonly ring: DelayRing | null;
  private readonly previous = makeStereoBlock();
  private delay = 0;
  private framesWritten = 0;
  private ringingFrames = 0;

  /** @param pool lends a ring for short delays of blocks in its memory; without one the delay lines' own rings are used */
  constructor(
    sampleRate: number,
    private readonly pool: DelayRingPool | null = null,
  ) {
    this.maxDelay = Math.floor(MAX_SECONDS * sampleRate);
    this.ring = pool?.allocateRing() ?? null;
    this.left = new IntegerDelayLine(this.maxDelay, STEP_FRAMES, this.ring?.left);
    this.right = new IntegerDelayLine(this.maxDelay, STEP_FRAMES, this.ring?.right);
  }

  /** True when every delayed sample has come out. */
  get silent(): boolean {
    return this.ringingFrames <= 0;
  }

  /** Delay of the output in samples; differs from the one asked for until that can be read. */
  get currentDelay(): number {
    return this.delay;
  }

  /** Clears the delay lines and takes the delay at once. */
  reset(samples: number): void {
    this.left.clear();
    this.right.clear();
    this.framesWritten = 0;
    this.ringingFrames = 0;
    this.delay = this.clampDelay(samples);
  }

  private clampDelay(samples: number): number {
    return samples > this.maxDelay ? this.maxDelay : samples < 0 ? 0 : samples;
  }

  /**
   * @param out receives the delayed block; may be the input itself
   * @param samples delay that is asked for
   * @param sounding false when the input is all zeros
   * @returns `out`, or the input itself while the delay is zero
   */
  process(input: StereoBlock, out: StereoBlock, samples: number, sounding: boolean): StereoBlock {
    const from = this.delay;
    const to = this.clampDelay(samples);
    if (from === 0 && to === 0) {
      this.framesWritten = 0;
      this.ringingFrames = 0;
      return input;
    }
    this.reserve(from > to ? from : to);
    this.framesWritten += STEP_FRAMES;
    if (sounding) this.ringingFrames = (from > to ? from : to) + STEP_FRAMES;
    else this.ringingFrames -= STEP_FRAMES;
    if (from === to && input === out && this.canDelayInPool(input)) return this.delayInPool(input, from);
    this.left.write(input.left);
    this.right.write(input.right);
    if (from === to || this.framesWritten < to + STEP_FRAMES) {
      if (from === 0) return input;
      this.read(from, out);
      return out;
    }
    this.delay = to;
    this.read(from, this.previous);
    this.read(to, out);
    crossfade(this.previous.left, out.left);
    crossfade(this.previous.right, out.right);
    return out;
  }

  private canDelayInPool(block: StereoBlock): boolean {
    return block.at >= 0 && this.ring !== null && this.left.usesSmallRing;
  }

  private delayInPool(block: StereoBlock, delay: number): StereoBlock {
    const { left, right } = this;
    this.pool!.delayBlock(block, this.ring!, left.size, left.writeIndex, delay);
    left.advance();
    right.advance();
    return block;
  }

  /** Returns the ring to the pool; the compensator must not be used afterwards. */
  release(): void {
    if (this.ring) this.pool!.freeRing(this.ring);
  }

  private read(delay: number, out: StereoBlock): void {
    this.left.read(delay, out.left);
    this.right.read(delay, out.right);
  }

  private reserve(delay: number): void {
    this.left.reserve(delay);
    const readable = this.right.reserve(delay);
    if (this.framesWritten > readable) this.framesWritten = readable;
  }
}

function crossfade(from: Float64Array, to: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const t = (i + 1) / STEP_FRAMES;
    to[i] = from[i]! + (to[i]! - from[i]!) * t * t * (3 - 2 * t);
  }
}
