import { kaiserSinc } from './sincTable';

/** Positions per sample that are interpolated, the sample included. */
const PHASES = 8;
export const TRUE_PEAK_TAPS = 64;
const TAPS = TRUE_PEAK_TAPS;
const HALF = TAPS / 2;
const BETA = 5;
/** A quick pass at every second position decides where the long filter is needed. */
export const QUICK_PEAK_TAPS = 16;
const SHORT_TAPS = QUICK_PEAK_TAPS;
const SHORT_PHASES = 4;
/** Share of a peak that the quick pass may miss; the long one is skipped where even then nothing reaches the floor. */
export const QUICK_PEAK_MISS = 1.5;
/** Samples from a sample's arrival until the peaks around it are known. */
export const TRUE_PEAK_DELAY = HALF;

function makeTable(phases: number, taps: number): Float64Array {
  const table = new Float64Array(phases * taps);
  for (let phase = 0; phase < phases; phase += 1) {
    let sum = 0;
    for (let k = 0; k < taps; k += 1) {
      const value = kaiserSinc(k - (taps / 2 - 1) - phase / phases, taps / 2, BETA);
      table[phase * taps + k] = value;
      sum += value;
    }
    for (let k = 0; k < taps; k += 1) table[phase * taps + k] = table[phase * taps + k]! / sum;
  }
  return table;
}

/** Coefficients of each position between two samples, one row after another. */
export const TRUE_PEAK_TABLE = makeTable(PHASES, TAPS);
const TABLE = TRUE_PEAK_TABLE;
/** The same for the quick reading. */
export const QUICK_PEAK_TABLE = makeTable(SHORT_PHASES, SHORT_TAPS);
const SHORT_TABLE = QUICK_PEAK_TABLE;
/** Offset of the quick filter within the samples of the long one. */
export const QUICK_PEAK_FROM = HALF - SHORT_TAPS / 2;
const SHORT_FROM = QUICK_PEAK_FROM;

/**
 * Maximum gain of a peak between samples over the highest sample: the maximum sum that the coefficients of a phase can
 * have.
 */
export const TRUE_PEAK_BOUND = Array.from({ length: PHASES }, (_, phase) =>
  TABLE.subarray(phase * TAPS, (phase + 1) * TAPS).reduce((sum, x) => sum + Math.abs(x), 0),
).reduce((most, sum) => Math.max(most, sum), 0);

/**
 * Peaks between the samples, by eightfold interpolation with a filter that is flat up to 0.96 of half the rate (after
 * ITU-R BS.1770-4, annex 2).
 */
export class TruePeak {
  /** Twice, so that the newest TAPS samples always are in one piece. */
  private readonly recent = new Float64Array(2 * TAPS);
  private place = 0;
  /** Samples for which one above the floor remains under the filter. */
  private loud = 0;

  clear(): void {
    this.recent.fill(0);
    this.place = 0;
    this.loud = 0;
  }

  /**
   * Raises `peaks` to the true peak of each sample of a block.
   * @param floor where the samples nearby cannot make a peak of this level, the work is skipped and 0 is given
   */
  run(samples: Float64Array, n: number, floor: number, peaks: Float64Array): void {
    for (let i = 0; i < n; i += 1) {
      const peak = this.next(samples[i]!, floor);
      if (peak > peaks[i]!) peaks[i] = peak;
    }
  }

  /** Highest level from the sample that came TRUE_PEAK_DELAY before `x` up to the next one. */
  next(x: number, floor = 0): number {
    const { recent } = this;
    const at = this.place;
    recent[at] = x;
    recent[at + TAPS] = x;
    this.place = (at + 1) & (TAPS - 1);
    const sample = floor / TRUE_PEAK_BOUND;
    if (x > sample || -x > sample) this.loud = TAPS;
    else if (this.loud > 0) this.loud -= 1;
    if (this.loud === 0) return 0;
    return peakAround(recent, this.place, floor);
  }
}

/** Level between two samples: the long filter is evaluated where the quick pass is highest, and on both sides of it. */
function peakAround(samples: Float64Array, from: number, floor: number): number {
  let rough = 0;
  let at = 0;
  for (let phase = 0; phase < SHORT_PHASES; phase += 1) {
    const read = Math.abs(reading(SHORT_TABLE, phase * SHORT_TAPS, SHORT_TAPS, samples, from + SHORT_FROM));
    if (read > rough) {
      rough = read;
      at = phase;
    }
  }
  if (rough * QUICK_PEAK_MISS < floor) return rough;
  let most = rough;
  for (let phase = 2 * at - 1; phase <= 2 * at + 1; phase += 1) {
    if (phase < 0) continue;
    const read = Math.abs(reading(TABLE, phase * TAPS, TAPS, samples, from));
    if (read > most) most = read;
  }
  return most;
}

/** Dot product of a row of the table with as many samples. */
function reading(table: Float64Array, row: number, taps: number, samples: Float64Array, from: number): number {
  let sum = 0;
  for (let k = 0; k < taps; k += 1) sum += table[row + k]! * samples[from + k]!;
  return sum;
}
