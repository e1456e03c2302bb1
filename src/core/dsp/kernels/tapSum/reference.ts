import { STEP_FRAMES } from '../../blocks';
import type { TapWork } from './layout';
import { SINC_TAPS } from '../../sincTable';

/** What kernels/tapSum/kernel.as.ts does, in TypeScript, on `cells`: its reference, and what runs where it cannot. */
export function tapSumReference(cells: Float32Array): TapWork {
  return {
    addWhole: (left, right, levels, sums) => {
      for (let i = 0; i < STEP_FRAMES; i += 1) {
        add(cells, (sums >> 2) + i, cells[(left >> 2) + i]!, levels >> 2, i);
        add(cells, (sums >> 2) + STEP_FRAMES + i, cells[(right >> 2) + i]!, (levels >> 2) + 2, i);
      }
    },
    addBetween: (left, right, kernel, levels, sums) => {
      for (let i = 0; i < STEP_FRAMES; i += 1) {
        add(cells, (sums >> 2) + i, between(cells, (left >> 2) + i, kernel >> 2), levels >> 2, i);
        add(cells, (sums >> 2) + STEP_FRAMES + i, between(cells, (right >> 2) + i, kernel >> 2), (levels >> 2) + 2, i);
      }
    },
  };
}

function add(cells: Float32Array, to: number, sample: number, level: number, i: number): void {
  cells[to] = cells[to]! + sample * (cells[level]! + cells[level + 1]! * (i + 1));
}

function between(cells: Float32Array, at: number, kernel: number): number {
  let sum = 0;
  for (let k = 0; k < SINC_TAPS; k += 1) sum += cells[kernel + k]! * cells[at + k]!;
  return sum;
}
