import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import { KWeighted } from '../analysis/kWeighting';

/** Time constant of the averages of both sides. */
const WINDOW_SECONDS = 2;
const MAX_DB = 18;
/** Mean square of about -65 LUFS: no matching below it. */
const HEARD = 4e-7;

/** Matches the loudness of the output to that of the dry sound, by BS.1770 weighting, and reports the gain. */
export class LoudnessMatcher {
  on = false;
  /** The gain now applied, in dB. */
  gainDb = 0;
  private before = 0;
  private after = 0;
  private gain = 1;
  private readonly filters: readonly KWeighted[];
  private readonly share: number;

  constructor(sampleRate: number) {
    this.filters = [0, 1, 2, 3].map(() => new KWeighted(sampleRate));
    this.share = 1 - Math.exp(-STEP_FRAMES / (WINDOW_SECONDS * sampleRate));
  }

  clear(): void {
    this.before = 0;
    this.after = 0;
  }

  /** Measures a block of the dry sound. */
  listenBefore(block: StereoBlock): void {
    const { filters } = this;
    const mean =
      (filters[0]!.energy(block.left, 0, STEP_FRAMES) + filters[1]!.energy(block.right, 0, STEP_FRAMES)) / STEP_FRAMES;
    this.before += (mean - this.before) * this.share;
  }

  /** Measures a block of the output, then scales it. */
  matchAfter(block: StereoBlock): void {
    const { filters } = this;
    const n = STEP_FRAMES;
    const mean = (filters[2]!.energy(block.left, 0, n) + filters[3]!.energy(block.right, 0, n)) / n;
    this.after += (mean - this.after) * this.share;
    const isAudible = this.before > HEARD && this.after > HEARD;
    const wanted = isAudible ? 10 * Math.log10(this.before / this.after) : this.gainDb;
    const limited = wanted > MAX_DB ? MAX_DB : wanted < -MAX_DB ? -MAX_DB : wanted;
    this.gainDb = this.on ? limited : 0;
    const goal = this.on ? Math.pow(10, limited / 20) : 1;
    const next = Math.abs(goal - this.gain) < 1e-6 ? goal : this.gain + (goal - this.gain) * 0.05;
    if (next === 1 && this.gain === 1) return;
    const step = (next - this.gain) / n;
    let gain = this.gain;
    for (let i = 0; i < n; i += 1) {
      gain += step;
      block.left[i] = block.left[i]! * gain;
      block.right[i] = block.right[i]! * gain;
    }
    this.gain = next;
  }
}
