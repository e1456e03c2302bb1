import { kaiserSinc } from './sincTable';

const PHASES = 4;
const TAPS = 16;
const HALF = TAPS / 2;
const BETA = 6;
/** Samples from a sample's arrival until the peaks around it are known. */
export const TRUE_PEAK_DELAY = HALF;

function makeTable(): Float64Array {
  const table = new Float64Array(PHASES * TAPS);
  for (let phase = 0; phase < PHASES; phase += 1) {
    let sum = 0;
    for (let k = 0; k < TAPS; k += 1) {
      const value = kaiserSinc(k - (HALF - 1) - phase / PHASES, HALF, BETA);
      table[phase * TAPS + k] = value;
      sum += value;
    }
    for (let k = 0; k < TAPS; k += 1) table[phase * TAPS + k] = table[phase * TAPS + k]! / sum;
  }
  return table;
}

const TABLE = makeTable();

/** Between samples no sound rises further above its highest sample than by this: the most that the factors of a phase can add up to. */
export const TRUE_PEAK_BOUND = [0, 1, 2, 3].reduce((most, phase) => Math.max(most, TABLE.subarray(phase * TAPS, (phase + 1) * TAPS).reduce((sum, x) => sum + Math.abs(x), 0)), 0);

/** Peaks between the samples, by reading four times as often (ITU-R BS.1770-4, annex 2). */
export class TruePeak {
  /** Twice, so that the newest TAPS samples always lie in one piece. */
  private readonly recent = new Float64Array(2 * TAPS);
  private place = 0;
  /** For so many samples yet, one above the floor lies under the kernel. */
  private loud = 0;

  clear(): void {
    this.recent.fill(0);
    this.place = 0;
    this.loud = 0;
  }

  /** The same for a run: raises `peaks` to what it finds. In one loop here, since a figure that is handed from one function to another is put into memory of its own first. */
  run(samples: Float64Array, n: number, floor: number, peaks: Float64Array): void {
    for (let i = 0; i < n; i += 1) {
      const peak = this.next(samples[i]!, floor);
      if (peak > peaks[i]!) peaks[i] = peak;
    }
  }

  /**
   * Highest level from the sample that came TRUE_PEAK_DELAY before `x` up to the next one.
   * @param floor where no sample near is above this, the work is left and 0 is given
   */
  next(x: number, floor = 0): number {
    const { recent } = this;
    const at = this.place;
    recent[at] = x;
    recent[at + TAPS] = x;
    this.place = (at + 1) & (TAPS - 1);
    if (x > floor || -x > floor) this.loud = TAPS;
    else if (this.loud > 0) this.loud -= 1;
    if (this.loud === 0) return 0;
    const from = this.place;
    let most = 0;
    for (let phase = 0; phase < PHASES; phase += 1) {
      let sum = 0;
      const row = phase * TAPS;
      for (let k = 0; k < TAPS; k += 1) sum += TABLE[row + k]! * recent[from + k]!;
      if (sum > most) most = sum;
      else if (-sum > most) most = -sum;
    }
    return most;
  }
}
