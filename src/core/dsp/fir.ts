import { STEP_FRAMES } from './blocks';
import { FIR_BYTES } from './kernels/fir/bytes';
import { FIR_FUSED_BYTES } from './kernels/fir/fusedBytes';
import { startKernel } from './kernels/load';

const CODE = { plain: FIR_BYTES, fused: FIR_FUSED_BYTES };

type Filter = (taps: number, count: number, row: number, out: number) => void;

/** A finite impulse response over 64 samples at a time; the caller writes `taps` and `row`. */
export interface Fir {
  /** In the order of the samples of `row`: time-reversed. */
  readonly taps: Float32Array;
  /** `earlier` samples, then one fewer than there are taps, then those of the block. */
  readonly row: Float32Array;
  /** The filtered block. */
  readonly out: Float32Array;
  run(): void;
}

/**
 * Filters that share one memory, since browsers give a page few.
 * @param count of filters
 * @param taps of each
 * @param earlier samples that their rows keep besides
 * @param withKernel false leaves the work to TypeScript, which tests compare
 */
export function makeFirs(count: number, taps: number, earlier = 0, withKernel = true): readonly Fir[] {
  const rowLength = earlier + taps - 1 + STEP_FRAMES;
  const figures = taps + rowLength + STEP_FRAMES;
  const kernel = withKernel ? startKernel(CODE, 4 * count * figures) : null;
  const buffer = kernel ? kernel.memory.buffer : new ArrayBuffer(4 * count * figures);
  const filter = kernel ? (kernel.exports.filter as Filter) : null;
  return Array.from({ length: count }, (_, i) => {
    const at = 4 * i * figures;
    const rowAt = at + 4 * taps;
    const outAt = rowAt + 4 * rowLength;
    const fir = {
      taps: new Float32Array(buffer, at, taps),
      row: new Float32Array(buffer, rowAt, rowLength),
      out: new Float32Array(buffer, outAt, STEP_FRAMES),
    };
    const run = filter
      ? () => filter(at, taps, rowAt + 4 * earlier, outAt)
      : () => filterReference(fir.taps, fir.row, earlier, fir.out);
    return { ...fir, run };
  });
}

function filterReference(taps: Float32Array, row: Float32Array, from: number, out: Float32Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    let sum = 0;
    for (let k = 0; k < taps.length; k += 1) sum += taps[k]! * row[from + i + k]!;
    out[i] = sum;
  }
}
