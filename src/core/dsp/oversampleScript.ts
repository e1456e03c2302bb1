import type { OversampleWork } from './oversampler';
import { shapedAt } from './saturate';

/** What kernels/oversample.as.ts does, in TypeScript, on `cells`: its reference, and what runs where it cannot. */
export function scriptedOversampling(cells: Float32Array): OversampleWork {
  const filtered = (at: number, taps: number, count: number): number => {
    let sum = 0;
    for (let k = 0; k < count; k += 1) sum += cells[taps + k]! * cells[at - k]!;
    return sum;
  };
  return {
    up: (from, to, taps, count, half, n) => {
      for (let i = 0; i < n; i += 1) {
        cells[(to >> 2) + 2 * i] = 2 * filtered((from >> 2) + i, taps >> 2, count);
        cells[(to >> 2) + 2 * i + 1] = cells[(from >> 2) + i - half]!;
      }
    },
    split: (from, even, odd, n) => {
      for (let i = 0; i < n; i += 1) {
        cells[(even >> 2) + i] = cells[(from >> 2) + 2 * i]!;
        cells[(odd >> 2) + i] = cells[(from >> 2) + 2 * i + 1]!;
      }
    },
    down: (even, odd, to, taps, count, half, n) => {
      for (let i = 0; i < n; i += 1) cells[(to >> 2) + i] = filtered((even >> 2) + i, taps >> 2, count) + 0.5 * cells[(odd >> 2) + i - half]!;
    },
    shape: (at, kind, from, step, n) => {
      for (let i = 0; i < n; i += 1) cells[(at >> 2) + i] = shapedAt(cells[(at >> 2) + i]!, kind, from + step * (i + 1));
    },
  };
}
