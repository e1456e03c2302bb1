import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import { KWeighted } from '../analysis/kWeighting';

/** Time constant of the averages of both sides. */
const WINDOW_SECONDS = 2;
const MAX_DB = 18;
/** Mean square of about -65 LUFS: quieter than this, nothing is matched. */
const HEARD = 4e-7;

/** Makes what is heard as loud as the untreated sound, by BS.1770 weighting, and tells the gain it took. */
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

  /** Looks at the untreated run. */
  listenBefore(run: StereoBlock): void {
    const { filters } = this;
    const mean =
      (filters[0]!.energy(run.left, 0, STEP_FRAMES) + filters[1]!.energy(run.right, 0, STEP_FRAMES)) / STEP_FRAMES;
    this.before += (mean - this.before) * this.share;
  }

  /** Looks at the treated run, then sets its level. */
  matchAfter(run: StereoBlock): void {
    const { filters } = this;
    const n = STEP_FRAMES;
    const mean = (filters[2]!.energy(run.left, 0, n) + filters[3]!.energy(run.right, 0, n)) / n;
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
      run.left[i] = run.left[i]! * gain;
      run.right[i] = run.right[i]! * gain;
    }
    this.gain = next;
  }
}
