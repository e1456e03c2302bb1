import { SINC_BEFORE, SINC_PHASES, SINC_TABLE, SINC_TAPS } from './sincTable';

/** A ring's sample at any place, by the nearest of the table's phases: within a 4096th of a sample. @param mask size of the ring less one, a power of two */
export function sincAt(ring: Float32Array | Float64Array, mask: number, place: number): number {
  const whole = Math.floor(place);
  const row = (((place - whole) * SINC_PHASES + 0.5) | 0) * SINC_TAPS;
  const from = whole - SINC_BEFORE;
  let sum = 0;
  for (let k = 0; k < SINC_TAPS; k += 1) sum += SINC_TABLE[row + k]! * ring[(from + k) & mask]!;
  return sum;
}
