import { startKernel } from './kernels/load';
import { CONVOLUTION_BYTES } from './kernels/convolutionBytes';
import { scriptedWork } from './convolutionScript';

/** What a partitioned convolution is made of; addresses are bytes in `cells`. */
export interface ConvolutionWork {
  /** One pass of a complex transform; all passes in turn make it whole. */
  pass(index: number, size: number, re: number, im: number, work: number, turns: number): void;
  /** Over the bins from `from` until `until`, of spectra of `half` bins. */
  multiplyAdd(half: number, from: number, until: number, acc: number, x: number, h: number): void;
  /** The same for two pairs at once. */
  multiplyAddTwo(half: number, from: number, until: number, acc: number, x: number, h: number, y: number, k: number): void;
  part(half: number, re: number, im: number, left: number, right: number): void;
  join(half: number, left: number, right: number, re: number, im: number, scale: number): void;
}

export interface WorkMemory {
  readonly cells: Float32Array;
  readonly work: ConvolutionWork;
}

/** How many passes a transform of this size takes. */
export const passesOf = (size: number): number => Math.ceil(Math.log2(size) / 2);

/** Memory for so many figures, with the work done on it by WebAssembly where there is some. @param withKernel false leaves it to TypeScript, which tests compare */
export function workMemory(figures: number, withKernel: boolean): WorkMemory {
  const kernel = withKernel ? startKernel(CONVOLUTION_BYTES, figures * 4) : null;
  if (!kernel) {
    const cells = new Float32Array(figures);
    return { cells, work: scriptedWork(cells) };
  }
  return { cells: new Float32Array(kernel.memory.buffer, 0, figures), work: kernel.exports as unknown as ConvolutionWork };
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

/** Lays the tables of a size down; they are worked out once, since effects are made on the audio thread. */
export function writeTurns(cells: Float32Array, at: number, size: number): void {
  const known = turnsOf.get(size) ?? makeTurns(size);
  turnsOf.set(size, known);
  cells.set(known, at);
}
