import { STEP_FRAMES } from './blocks';
import { FIR_BYTES } from './kernels/fir/bytes';
import { FIR_FUSED_BYTES } from './kernels/fir/fusedBytes';
import { startKernel } from './kernels/load';
import {
  QUICK_PEAK_FROM,
  QUICK_PEAK_MISS,
  QUICK_PEAK_TABLE,
  QUICK_PEAK_TAPS,
  TRUE_PEAK_BOUND,
  TRUE_PEAK_TABLE,
  TRUE_PEAK_TAPS,
  TruePeak,
} from './truePeak';

const CODE = { plain: FIR_BYTES, fused: FIR_FUSED_BYTES };
const ROW = TRUE_PEAK_TAPS + STEP_FRAMES;
/** Offsets in floats: two rows and the peaks follow both tables. */
const QUICK_AT = TRUE_PEAK_TABLE.length;
const ROWS_AT = QUICK_AT + QUICK_PEAK_TABLE.length;
const PEAKS_AT = ROWS_AT + 2 * ROW;
const FIGURES = PEAKS_AT + STEP_FRAMES;

type Peaks = (table: number, phases: number, taps: number, row: number, first: number, out: number) => void;

/** Peaks between the samples of two channels, 64 samples at a time, by a kernel where there is one: see TruePeak. */
export class TruePeakPair {
  private readonly meters = [new TruePeak(), new TruePeak()] as const;
  private readonly rows: readonly [Float32Array, Float32Array];
  private readonly found: Float32Array;
  private readonly work: Peaks | null;

  /** @param withKernel false leaves the work to TypeScript, which tests compare */
  constructor(withKernel = true) {
    const kernel = withKernel ? startKernel(CODE, 4 * FIGURES) : null;
    const cells = new Float32Array(kernel ? kernel.memory.buffer : new ArrayBuffer(4 * FIGURES), 0, FIGURES);
    cells.set(TRUE_PEAK_TABLE);
    cells.set(QUICK_PEAK_TABLE, QUICK_AT);
    this.rows = [cells.subarray(ROWS_AT, ROWS_AT + ROW), cells.subarray(ROWS_AT + ROW, PEAKS_AT)];
    this.found = cells.subarray(PEAKS_AT, FIGURES);
    this.work = kernel ? (kernel.exports.peaks as Peaks) : null;
  }

  clear(): void {
    for (const row of this.rows) row.fill(0);
    for (const meter of this.meters) meter.clear();
  }

  /**
   * Raises `peaks` to the true peak of each sample of a block, TRUE_PEAK_DELAY later.
   * @param floor where the samples nearby cannot make a peak of this level, the work is skipped
   */
  run(left: Float64Array, right: Float64Array, floor: number, peaks: Float64Array): void {
    const { work, found } = this;
    if (!work) {
      this.meters[0].run(left, STEP_FRAMES, floor, peaks);
      this.meters[1].run(right, STEP_FRAMES, floor, peaks);
      return;
    }
    found.fill(0);
    const sample = floor / TRUE_PEAK_BOUND;
    if (this.take(0, left) > sample) this.find(work, ROWS_AT, floor);
    if (this.take(1, right) > sample) this.find(work, ROWS_AT + ROW, floor);
    for (let i = 0; i < STEP_FRAMES; i += 1) if (found[i]! > peaks[i]!) peaks[i] = found[i]!;
  }

  /** @returns the highest level under the filter */
  private take(side: 0 | 1, samples: Float64Array): number {
    const row = this.rows[side];
    let most = 0;
    for (let i = 0; i < TRUE_PEAK_TAPS; i += 1) {
      const x = row[STEP_FRAMES + i]!;
      row[i] = x;
      if (x > most) most = x;
      else if (-x > most) most = -x;
    }
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const x = samples[i]!;
      row[TRUE_PEAK_TAPS + i] = x;
      if (x > most) most = x;
      else if (-x > most) most = -x;
    }
    return most;
  }

  /**
   * The quick pass decides whether the long one is needed. It overestimates where all frequencies sound, which leaves a
   * margin for peaks between the positions of the long one.
   */
  private find(work: Peaks, row: number, floor: number): void {
    const quick = QUICK_PEAK_TABLE.length / QUICK_PEAK_TAPS;
    work(4 * QUICK_AT, quick, QUICK_PEAK_TAPS, 4 * row, 4 * (1 + QUICK_PEAK_FROM), 4 * PEAKS_AT);
    const { found } = this;
    let most = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) if (found[i]! > most) most = found[i]!;
    if (most * QUICK_PEAK_MISS < floor) return;
    work(0, TRUE_PEAK_TABLE.length / TRUE_PEAK_TAPS, TRUE_PEAK_TAPS, 4 * row, 4, 4 * PEAKS_AT);
  }
}
