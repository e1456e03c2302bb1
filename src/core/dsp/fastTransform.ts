import { passesOf, workMemory, writeTurns } from './convolutionWork';
import type { ConvolutionWork } from './kernels/convolution/layout';

const known = new Map<number, FastTransform>();

/** The shared transform of a size, for callers that are done with `re` and `im` before another begins. */
export function sharedTransform(size: number): FastTransform {
  const made = known.get(size) ?? new FastTransform(size);
  known.set(size, made);
  return made;
}

/**
 * A complex Fourier transform of one size, in single precision, in place on `re` and `im`: that of the convolution's
 * kernel alone.
 */
export class FastTransform {
  readonly re: Float32Array;
  readonly im: Float32Array;
  private readonly cells: Float32Array;
  private readonly work: ConvolutionWork;
  private readonly passes: number;

  /**
   * @param size a power of two from 16 on
   * @param withKernel false leaves the work to TypeScript, which tests compare
   */
  constructor(
    private readonly size: number,
    withKernel = true,
  ) {
    const { cells, work } = workMemory(4 * size + 1.5 * size, withKernel);
    this.re = cells.subarray(0, size);
    this.im = cells.subarray(size, 2 * size);
    this.cells = cells;
    this.work = work;
    this.passes = passesOf(size);
    writeTurns(cells, 4 * size, size);
  }

  /** exp(-i...), not scaled. */
  forward(): void {
    this.run(0, 4 * this.size);
  }

  /** exp(+i...), not scaled: the forward transform with both parts swapped. */
  inverse(): void {
    this.run(4 * this.size, 0);
  }

  private run(re: number, im: number): void {
    const { size, work, passes, cells } = this;
    const away = 8 * size;
    if ((passes & 1) === 0) {
      work.passes(0, passes, passes, size, re, im, away, away + 4 * size, 16 * size);
      return;
    }
    work.passes(0, passes, passes, size, away, away + 4 * size, re, im, 16 * size);
    cells.copyWithin(re >> 2, 2 * size, 3 * size);
    cells.copyWithin(im >> 2, 3 * size, 4 * size);
  }
}
