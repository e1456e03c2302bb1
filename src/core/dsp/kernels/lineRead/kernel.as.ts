// AssemblyScript. Reads a delay line between its samples, at one delay or at one for each sample. The same work in
// TypeScript: DelayLine.readFixed and readMoving. Rings are f32, addresses are bytes.

import { readBetween } from '../shared/between.as';
import { madd } from '../shared/madd.as';

const FRAMES: usize = 64;
/** As in sincTable.ts and delayLine.ts. */
const PHASES: f64 = 2048;
const BEFORE: i32 = 7;
const SHORTEST: f64 = 24;

/**
 * A run of FRAMES samples between samples as f64.
 * @param from first sample under the kernel
 * @param kernel sixteen figures
 * @param scratch room for the run as f32
 */
export function readStanding(from: usize, kernel: usize, scratch: usize, to: usize): void {
  readBetween(from, kernel, scratch);
  for (let i: usize = 0; i < FRAMES * 4; i += 16) {
    const four = v128.load(scratch + i);
    v128.store(to + 2 * i, f64x2.promote_low_f32x4(four));
    v128.store(to + 2 * i, f64x2.promote_low_f32x4(v128.shuffle<i32>(four, four, 2, 3, 0, 1)), 16);
  }
}

/**
 * One sample under the sixteen taps of a row of the table, as four partial sums; `at` is an index that may run past the
 * end of the ring.
 */
@inline
function partial(ring: usize, at: i32, mask: i32, row: usize): v128 {
  if (at + 15 <= mask) {
    const from = ring + ((<usize>at) << 2);
    const early = madd(v128.load(row, 16), v128.load(from, 16), f32x4.mul(v128.load(row), v128.load(from)));
    return f32x4.add(
      early,
      madd(v128.load(row, 48), v128.load(from, 48), f32x4.mul(v128.load(row, 32), v128.load(from, 32))),
    );
  }
  let sum: f32 = 0;
  for (let k = 0; k < 16; k += 1)
    sum += load<f32>(row + ((<usize>k) << 2)) * load<f32>(ring + ((<usize>((at + k) & mask)) << 2));
  return f32x4(sum, 0, 0, 0);
}

/**
 * Reads samples, each at its own delay (f64, at `delays`), by the nearest row of the table at `table`, into f64 at
 * `to`.
 * @param place where the next sample is written
 * @param mask length of the ring less one
 * @returns false when a delay is too short for sixteen taps
 */
export function readMoving(
  ring: usize,
  place: i32,
  mask: i32,
  delays: usize,
  frames: i32,
  table: usize,
  to: usize,
): bool {
  for (let i = 0; i < frames; i += 1) {
    const delay = load<f64>(delays + ((<usize>i) << 3));
    if (delay < SHORTEST) return false;
    const from = <f64>(place + i) - delay;
    const whole = Math.floor(from);
    const row = table + ((<usize>(<i32>((from - whole) * PHASES + 0.5))) << 6);
    const sums = partial(ring, (<i32>whole - BEFORE) & mask, mask, row);
    const halves = f32x4.add(sums, v128.shuffle<i32>(sums, sums, 2, 3, 0, 1));
    store<f64>(to + ((<usize>i) << 3), <f64>(f32x4.extract_lane(halves, 0) + f32x4.extract_lane(halves, 1)));
  }
  return true;
}
