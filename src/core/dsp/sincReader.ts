import { SINC_BEFORE, SINC_PHASES, SINC_TABLE, SINC_TAPS } from './sincTable';

/**
 * Reads a ring at places that go on by `speed`, which grows by `growth` with each sample: between samples by the nearest of the table's
 * phases, within a 4096th of a sample. Writes out[from, to).
 * @param mask size of the ring less one, a power of two  @param start first place, in samples, within 2^31 to either side
 */
export function sincRun(ring: Float32Array, mask: number, start: number, speed: number, growth: number, out: Float64Array, from: number, to: number): void {
  const table = SINC_TABLE;
  const last = mask - SINC_TAPS;
  let place = start;
  let step = speed;
  for (let i = from; i < to; i += 1) {
    const whole = Math.floor(place);
    const row = (((place - whole) * SINC_PHASES + 0.5) | 0) * SINC_TAPS;
    const at = ((whole | 0) - SINC_BEFORE) & mask;
    if (at > last) {
      let sum = 0;
      for (let k = 0; k < SINC_TAPS; k += 1) sum += table[row + k]! * ring[(at + k) & mask]!;
      out[i] = sum;
    } else {
      const early = table[row]! * ring[at]! + table[row + 1]! * ring[at + 1]! + table[row + 2]! * ring[at + 2]! + table[row + 3]! * ring[at + 3]! + table[row + 4]! * ring[at + 4]! + table[row + 5]! * ring[at + 5]! + table[row + 6]! * ring[at + 6]! + table[row + 7]! * ring[at + 7]!;
      out[i] = early + table[row + 8]! * ring[at + 8]! + table[row + 9]! * ring[at + 9]! + table[row + 10]! * ring[at + 10]! + table[row + 11]! * ring[at + 11]! + table[row + 12]! * ring[at + 12]! + table[row + 13]! * ring[at + 13]! + table[row + 14]! * ring[at + 14]! + table[row + 15]! * ring[at + 15]!;
    }
    place += step;
    step += growth;
  }
}
