import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../dsp/blocks';
import { WholeDelay } from '../dsp/wholeDelay';

/** Nothing is held back longer, in seconds: four shifts by the spectrum one after another. */
const LONGEST_SECONDS = 0.6;

/** A ring for short delays in the memory where runs lie. */
export interface HoldRing {
  readonly left: Float64Array;
  readonly right: Float64Array;
  readonly at: number;
}

/** Where runs lie and can be held back quickly. */
export interface HoldRoom {
  takeRing(): HoldRing | null;
  giveBackRing(ring: HoldRing): void;
  hold(run: StereoBlock, ring: HoldRing, size: number, place: number, delay: number): void;
}

/**
 * Holds a sound back by whole samples, so that it keeps step with another that effects make late. Another delay comes
 * in over one step, and not before enough has passed to be heard at it.
 */
export class LatencyCompensator {
  private readonly left: WholeDelay;
  private readonly right: WholeDelay;
  private readonly longest: number;
  private readonly before = makeStereoBlock();
  private delay = 0;
  private passed = 0;
  private ringing = 0;

  private readonly ring: HoldRing | null;

  /** @param room where the runs lie that it holds back, if they can be held back there */
  constructor(
    sampleRate: number,
    private readonly room: HoldRoom | null = null,
  ) {
    this.longest = Math.floor(LONGEST_SECONDS * sampleRate);
    this.ring = room?.takeRing() ?? null;
    this.left = new WholeDelay(this.longest, STEP_FRAMES, this.ring?.left);
    this.right = new WholeDelay(this.longest, STEP_FRAMES, this.ring?.right);
  }

  /** False while something that it holds back is still to come. */
  get silent(): boolean {
    return this.ringing <= 0;
  }

  /** Samples by which what comes out is late now. */
  get late(): number {
    return this.delay;
  }

  /** Forgets what it holds; the delay is taken at once. */
  reset(samples: number): void {
    this.left.clear();
    this.right.clear();
    this.passed = 0;
    this.ringing = 0;
    this.delay = this.held(samples);
  }

  private held(samples: number): number {
    return samples > this.longest ? this.longest : samples < 0 ? 0 : samples;
  }

  /**
   * @param out where what was held back goes; may be the input itself
   * @param sounding false when the input is nothing but zeros
   * @returns `out`, or the input itself where nothing is held back: it is then not even kept, and a delay that comes
   * waits until enough has passed
   */
  process(input: StereoBlock, out: StereoBlock, samples: number, sounding: boolean): StereoBlock {
    const from = this.delay;
    const to = this.held(samples);
    if (from === 0 && to === 0) {
      this.passed = 0;
      this.ringing = 0;
      return input;
    }
    this.reach(from > to ? from : to);
    this.passed += STEP_FRAMES;
    if (sounding) this.ringing = (from > to ? from : to) + STEP_FRAMES;
    else this.ringing -= STEP_FRAMES;
    if (from === to && input === out && input.at >= 0 && this.ring && this.left.isSmall) return this.hold(input, from);
    this.left.write(input.left);
    this.right.write(input.right);
    if (from === to || this.passed < to + STEP_FRAMES) {
      if (from === 0) return input;
      this.read(from, out);
      return out;
    }
    this.delay = to;
    this.read(from, this.before);
    this.read(to, out);
    cross(this.before.left, out.left);
    cross(this.before.right, out.right);
    return out;
  }

  private hold(run: StereoBlock, delay: number): StereoBlock {
    const { left, right } = this;
    this.room!.hold(run, this.ring!, left.size, left.place, delay);
    left.advance();
    right.advance();
    return run;
  }

  /** It is gone: the ring it worked in is free. */
  release(): void {
    if (this.ring) this.room!.giveBackRing(this.ring);
  }

  private read(delay: number, out: StereoBlock): void {
    this.left.read(delay, out.left);
    this.right.read(delay, out.right);
  }

  private reach(delay: number): void {
    this.left.reach(delay);
    const held = this.right.reach(delay);
    if (this.passed > held) this.passed = held;
  }
}

function cross(from: Float64Array, to: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const t = (i + 1) / STEP_FRAMES;
    to[i] = from[i]! + (to[i]! - from[i]!) * t * t * (3 - 2 * t);
  }
}
