import type { TapWork } from './kernels/tapSum/layout';
import { STEP_FRAMES } from './blocks';
import { startKernel } from './kernels/load';
import { TAP_SUM_BYTES } from './kernels/tapSum/bytes';
import { DelayLine, ringSize } from './delayLine';
import { SINC_BEFORE, SINC_TAPS, sincCoefficients } from './sincTable';
import { tapSumReference } from './kernels/tapSum/reference';

const RUN = STEP_FRAMES + SINC_TAPS;
/** Offsets in floats. */
const SUMS = 0;
const LEVELS = SUMS + 2 * STEP_FRAMES;
const KERNEL = LEVELS + 4;
const PIECES = KERNEL + SINC_TAPS;
const RINGS = PIECES + 2 * RUN;

/**
 * A stereo delay line with many taps, summed in one pass: exact at whole samples, by a windowed sinc of sixteen points
 * between them. Blocks of STEP_FRAMES.
 */
export class TapBank {
  readonly lines: readonly [DelayLine, DelayLine];
  /**
   * Gains of the next tap: left from one value to another, then right; passed in memory, since doubles that are passed
   * as arguments allocate.
   */
  readonly levels = new Float64Array(4);
  private readonly cells: Float32Array<ArrayBuffer>;
  private readonly work: TapWork;
  private readonly size: number;
  private readonly kernel = new Float64Array(SINC_TAPS);

  /**
   * @param maxDelay longest delay in samples, counted from the write index after a block
   * @param withKernel false leaves the work to TypeScript, which tests compare
   */
  constructor(maxDelay: number, withKernel = true) {
    this.size = ringSize(maxDelay, STEP_FRAMES);
    const figures = RINGS + 2 * this.size;
    const kernel = withKernel ? startKernel(TAP_SUM_BYTES, figures * 4) : null;
    this.cells = kernel ? new Float32Array(kernel.memory.buffer, 0, figures) : new Float32Array(figures);
    this.work = kernel ? (kernel.exports as unknown as TapWork) : tapSumReference(this.cells);
    const ring = (side: 0 | 1): Float32Array<ArrayBuffer> =>
      this.cells.subarray(RINGS + side * this.size, RINGS + (side + 1) * this.size);
    this.lines = [new DelayLine(maxDelay, STEP_FRAMES, ring(0)), new DelayLine(maxDelay, STEP_FRAMES, ring(1))];
  }

  clear(): void {
    this.lines[0].clear();
    this.lines[1].clear();
  }

  write(left: Float64Array, right: Float64Array): void {
    this.lines[0].write(left, STEP_FRAMES);
    this.lines[1].write(right, STEP_FRAMES);
    for (let i = SUMS; i < SUMS + 2 * STEP_FRAMES; i += 1) this.cells[i] = 0;
  }

  /**
   * Adds the last block, delayed by a number of samples, to the sums, at the levels in `levels`. A fractional delay
   * must be longer than half the sinc.
   */
  add(delay: number): void {
    const { cells, levels, work } = this;
    cells[LEVELS] = levels[0]!;
    cells[LEVELS + 1] = (levels[1]! - levels[0]!) / STEP_FRAMES;
    cells[LEVELS + 2] = levels[2]!;
    cells[LEVELS + 3] = (levels[3]! - levels[2]!) / STEP_FRAMES;
    const behind = delay + STEP_FRAMES;
    const fraction = DelayLine.fractionAt(behind);
    if (fraction < 1e-7 || fraction > 1 - 1e-7) {
      const at = this.reach(this.lines[0].place - Math.round(behind), STEP_FRAMES);
      work.addWhole(4 * at, 4 * this.other(at), 4 * LEVELS, 4 * SUMS);
      return;
    }
    sincCoefficients(fraction, this.kernel);
    for (let k = 0; k < SINC_TAPS; k += 1) cells[KERNEL + k] = this.kernel[k]!;
    const at = this.reach(this.lines[0].place - Math.ceil(behind) - SINC_BEFORE, RUN);
    work.addBetween(4 * at, 4 * this.other(at), 4 * KERNEL, 4 * LEVELS, 4 * SUMS);
  }

  /** Adds the sums to a block. */
  addSums(left: Float64Array, right: Float64Array): void {
    const { cells } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = left[i]! + cells[SUMS + i]!;
      right[i] = right[i]! + cells[SUMS + STEP_FRAMES + i]!;
    }
  }

  /** Index of `length` contiguous samples of the left ring; where they wrap, they are copied together first. */
  private reach(place: number, length: number): number {
    const { cells, size } = this;
    const at = place & (size - 1);
    if (at + length <= size) return RINGS + at;
    for (let i = 0; i < length; i += 1) {
      const from = RINGS + ((at + i) & (size - 1));
      cells[PIECES + i] = cells[from]!;
      cells[PIECES + RUN + i] = cells[from + size]!;
    }
    return PIECES;
  }

  private other(at: number): number {
    return at === PIECES ? PIECES + RUN : at + this.size;
  }
}
