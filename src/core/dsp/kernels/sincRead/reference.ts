import { SINC_BEFORE, SINC_PHASES, SINC_TAPS } from '../../sincTable';
import type { SincWork } from './layout';

/**
 * What kernels/sincRead/kernel.as.ts does, in TypeScript, on `cells` and `out` (one memory, as 32 and as 64 bits): its
 * reference, and what runs where it cannot.
 */
export function sincReadReference(cells: Float32Array, out: Float64Array): SincWork {
  return {
    read: (left, right, mask, table, start, speed, growth, outLeft, outRight, from, to) => {
      if (growth === 0 && Math.floor(speed) === speed && Math.floor(start) === start) {
        for (let i = from, at = start | 0; i < to; i += 1, at += speed) {
          out[(outLeft >> 3) + i] = cells[(left >> 2) + (at & mask)]!;
          out[(outRight >> 3) + i] = cells[(right >> 2) + (at & mask)]!;
        }
        return;
      }
      let place = start;
      let step = speed;
      for (let i = from; i < to; i += 1) {
        const whole = Math.floor(place);
        const row = (table >> 2) + (((place - whole) * SINC_PHASES + 0.5) | 0) * SINC_TAPS;
        const at = ((whole | 0) - SINC_BEFORE) & mask;
        out[(outLeft >> 3) + i] = under(cells, (left >> 2) + at, row);
        out[(outRight >> 3) + i] = under(cells, (right >> 2) + at, row);
        place += step;
        step += growth;
      }
    },
  };
}

function under(cells: Float32Array, ring: number, row: number): number {
  let sum = 0;
  for (let k = 0; k < SINC_TAPS; k += 1) sum += cells[row + k]! * cells[ring + k]!;
  return sum;
}
