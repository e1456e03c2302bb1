import { followShare } from '../../dsp/onePole';
import { STEP_FRAMES, type StereoRun } from '../define';

const SECONDS = 0.35;
const MOST = 4;
const LEAST = 1 / 64;

/** Brings a run to the level of another over about a third of a second. */
export class LevelMatcher {
  private before = 0;
  private after = 0;
  private gain = 1;
  private readonly share: number;

  constructor(sampleRate: number) {
    this.share = followShare(SECONDS, STEP_FRAMES, sampleRate);
  }

  clear(): void {
    this.before = 0;
    this.after = 0;
    this.gain = 1;
  }

  listen(before: StereoRun, after: StereoRun): void {
    this.before += (power(before) - this.before) * this.share + 1e-15 - 1e-15;
    this.after += (power(after) - this.after) * this.share + 1e-15 - 1e-15;
  }

  /** @param most the gain is held under it  @param on false lets the sound be as it came */
  apply(io: StereoRun, on: boolean, most = MOST): void {
    const wanted = !on ? 1 : this.after < 1e-12 ? this.gain : Math.sqrt(this.before / this.after);
    const goal = wanted > most ? most : wanted < LEAST ? LEAST : wanted;
    // In steps that no one hears, however suddenly it is switched.
    const next = this.gain + (goal - this.gain) * 0.08;
    const step = (next - this.gain) / STEP_FRAMES;
    let gain = this.gain;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gain += step;
      io.left[i] = io.left[i]! * gain;
      io.right[i] = io.right[i]! * gain;
    }
    this.gain = next;
  }
}

function power({ left, right }: StereoRun): number {
  let sum = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) sum += left[i]! * left[i]! + right[i]! * right[i]!;
  return sum / (2 * STEP_FRAMES);
}
