import { DelayLine } from '../dsp/delayLine';
import { STEP_FRAMES, stereoRun, type StereoRun } from './define';

/** Nothing is held back longer, in seconds: four shifts by the spectrum one after another. */
const LONGEST_SECONDS = 0.6;

/**
 * Holds a sound back by whole samples, so that it keeps step with another that effects make late. Another delay comes in over one step,
 * and not before enough has passed to be heard at it.
 */
export class Align {
  private readonly left: DelayLine;
  private readonly right: DelayLine;
  private readonly longest: number;
  private readonly before = stereoRun();
  private delay = 0;
  private passed = 0;
  private ringing = 0;

  constructor(sampleRate: number) {
    this.longest = Math.floor(LONGEST_SECONDS * sampleRate);
    this.left = new DelayLine(this.longest + 2 * STEP_FRAMES, STEP_FRAMES);
    this.right = new DelayLine(this.longest + 2 * STEP_FRAMES, STEP_FRAMES);
  }

  /** False while something that it holds back is still to come. */
  get silent(): boolean {
    return this.ringing <= 0;
  }

  /** Forgets what it holds; the delay is taken at once. */
  jump(samples: number): void {
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
   * @param out where what was held back goes; may be the input itself  @param sounding false when the input is nothing but zeros
   * @returns `out`, or the input itself where nothing is held back: it is then not even kept, and a delay that comes waits until enough has passed
   */
  process(input: StereoRun, out: StereoRun, samples: number, sounding: boolean): StereoRun {
    const from = this.delay;
    const to = this.held(samples);
    if (from === 0 && to === 0) {
      this.passed = 0;
      this.ringing = 0;
      return input;
    }
    this.left.write(input.left, STEP_FRAMES);
    this.right.write(input.right, STEP_FRAMES);
    this.passed += STEP_FRAMES;
    if (sounding) this.ringing = (from > to ? from : to) + STEP_FRAMES;
    else this.ringing -= STEP_FRAMES;
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

  private read(delay: number, out: StereoRun): void {
    this.left.readFixed(STEP_FRAMES + delay, STEP_FRAMES, out.left);
    this.right.readFixed(STEP_FRAMES + delay, STEP_FRAMES, out.right);
  }
}

function cross(from: Float64Array, to: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const t = (i + 1) / STEP_FRAMES;
    to[i] = from[i]! + (to[i]! - from[i]!) * t * t * (3 - 2 * t);
  }
}
