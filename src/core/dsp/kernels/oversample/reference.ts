import type { OversampleWork } from './layout';
import { shapedAt } from '../../saturate';

/** Figures of the table before its stages. */
const STAGES_AT = 6;

/**
 * What kernels/oversample/kernel.as.ts does, in TypeScript, on `cells` and on the same memory as whole numbers: its reference,
 * and what runs where it cannot.
 */
export function oversampleReference(cells: Float32Array, places: Int32Array): OversampleWork {
  const keep = (row: number, n: number, history: number): void =>
    void cells.copyWithin(row - history, row + n - history, row + n);
  return {
    rise: (base, table, count, kind, from, step) => {
      const at = base >> 2;
      const rows = table >> 2;
      const top = at + places[rows]!;
      for (let s = 0; s < count; s += 1) {
        const stage = rows + STAGES_AT + 6 * s;
        const half = places[stage]!;
        const taps = places[stage + 1]!;
        const n = places[stage + 5]!;
        const input = at + places[stage + 2]!;
        const to = s === count - 1 ? top : at + places[stage + 8]!;
        for (let i = 0; i < n; i += 1) {
          cells[to + 2 * i] = 2 * filtered(cells, input + i, taps, 2 * half);
          cells[to + 2 * i + 1] = cells[input + i - half + 1]!;
        }
        keep(input, n, 2 * half);
      }
      if (kind >= 0)
        for (let i = 0; i < places[rows + 3]!; i += 1)
          cells[top + i] = shapedAt(cells[top + i]!, kind, from + step * (i + 1));
    },
    fall: (base, table, count) => {
      const at = base >> 2;
      const rows = table >> 2;
      const top = at + places[rows]!;
      const result = at + places[rows + 1]!;
      const filling = places[rows + 2]!;
      for (let s = count - 1; s >= 0; s -= 1) {
        const stage = rows + STAGES_AT + 6 * s;
        const half = places[stage]!;
        const taps = places[stage + 1]!;
        const even = at + places[stage + 3]!;
        const odd = at + places[stage + 4]!;
        const n = places[stage + 5]!;
        const source = s === count - 1 ? top - filling : result;
        for (let i = 0; i < n; i += 1) {
          cells[even + i] = cells[source + 2 * i]!;
          cells[odd + i] = cells[source + 2 * i + 1]!;
        }
        for (let i = 0; i < n; i += 1) {
          cells[result + i] =
            s === 0
              ? filtered(cells, even + i, places[rows + 4]!, 2 * half) +
                filtered(cells, odd + i - 1, places[rows + 5]!, 2 * half - 1)
              : filtered(cells, even + i, taps, 2 * half) + 0.5 * cells[odd + i - half]!;
        }
        keep(even, n, 2 * half);
        keep(odd, n, s === 0 ? 2 * half : half);
      }
      keep(top, places[rows + 3]!, filling);
    },
  };
}

function filtered(cells: Float32Array, at: number, taps: number, count: number): number {
  let sum = 0;
  for (let k = 0; k < count; k += 1) sum += cells[taps + k]! * cells[at - k]!;
  return sum;
}
