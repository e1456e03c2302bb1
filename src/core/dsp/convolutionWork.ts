import type { ConvolutionWork } from './kernels/convolution/layout';
import { startKernel } from './kernels/load';
import { CONVOLUTION_BYTES } from './kernels/convolution/bytes';
import { CONVOLUTION_FUSED_BYTES } from './kernels/convolution/fusedBytes';
import { convolutionReference } from './kernels/convolution/reference';

const CODE = { plain: CONVOLUTION_BYTES, fused: CONVOLUTION_FUSED_BYTES };

export interface WorkMemory {
  readonly cells: Float32Array;
  readonly work: ConvolutionWork;
}

/** Number of passes of a transform of this size. */
export const passesOf = (size: number): number => Math.ceil(Math.log2(size) / 2);

/**
 * Memory for a number of floats, and the operations on it: by WebAssembly where it is available.
 * @param withKernel false leaves it to TypeScript, which tests compare
 */
export function workMemory(figures: number, withKernel: boolean): WorkMemory {
  const kernel = withKernel ? startKernel(CODE, figures * 4) : null;
  if (!kernel) {
    const cells = new Float32Array(figures);
    return { cells, work: convolutionReference(cells) };
  }
  return {
    cells: new Float32Array(kernel.memory.buffer, 0, figures),
    work: kernel.exports as unknown as ConvolutionWork,
  };
}

const turnsOf = new Map<number, Float32Array>();

/** Cos and -sin of one, two and three times each angle of the first quarter, as `pass` wants them. */
function makeTurns(size: number): Float32Array {
  const quarter = size / 4;
  const made = new Float32Array(6 * quarter);
  for (let times = 1; times <= 3; times += 1) {
    for (let k = 0; k < quarter; k += 1) {
      const angle = (2 * Math.PI * times * k) / size;
      made[(2 * times - 2) * quarter + k] = Math.cos(angle);
      made[(2 * times - 1) * quarter + k] = -Math.sin(angle);
    }
  }
  return made;
}

/** Writes the tables of a size; they are computed once, since effects are created on the audio thread. */
export function writeTurns(cells: Float32Array, at: number, size: number): void {
  const known = turnsOf.get(size) ?? makeTurns(size);
  turnsOf.set(size, known);
  cells.set(known, at);
}
