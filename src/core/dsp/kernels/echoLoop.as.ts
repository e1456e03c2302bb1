// AssemblyScript. One step of an echo's loop in which nothing moves: reading, filter, mixing, writing, both sides at once.
// The same work in TypeScript: effects/echo/steadyLoop.ts and DelayLine.readFixed. Layout of the memory: echoKernel.ts.

const FRAMES: usize = 64;
const TAPS: usize = 16;
const SETTINGS: usize = 0;
const KERNEL: usize = 256;
const INPUT: usize = 512;
const OUTPUT: usize = 1536;
const BETWEEN: usize = 2560;
/** As in sincTable.ts and delayLine.ts. */
const PHASES: f64 = 2048;
const BEFORE: i32 = 7;
const SHORTEST: f64 = 24;

/** A run of FRAMES samples read between samples: sixteen at a time, so that they share each tap's factor. */
function readBetween(from: usize, kernel: usize, to: usize): void {
  for (let i: usize = 0; i < FRAMES * 4; i += 64) {
    let a = f32x4.splat(0);
    let b = f32x4.splat(0);
    let c = f32x4.splat(0);
    let d = f32x4.splat(0);
    for (let tap: usize = 0; tap < TAPS * 4; tap += 4) {
      const factor = v128.load32_splat(kernel + tap);
      const at = from + i + tap;
      a = f32x4.add(a, f32x4.mul(factor, v128.load(at)));
      b = f32x4.add(b, f32x4.mul(factor, v128.load(at, 16)));
      c = f32x4.add(c, f32x4.mul(factor, v128.load(at, 32)));
      d = f32x4.add(d, f32x4.mul(factor, v128.load(at, 48)));
    }
    v128.store(to + i, a);
    v128.store(to + i, b, 16);
    v128.store(to + i, c, 32);
    v128.store(to + i, d, 48);
  }
}

/** A run of FRAMES samples between samples as f64. @param from first sample under the kernel @param kernel sixteen figures */
export function readStanding(from: usize, kernel: usize, to: usize): void {
  readBetween(from, kernel, BETWEEN);
  for (let i: usize = 0; i < FRAMES * 4; i += 16) {
    const four = v128.load(BETWEEN + i);
    v128.store(to + 2 * i, f64x2.promote_low_f32x4(four));
    v128.store(to + 2 * i, f64x2.promote_low_f32x4(v128.shuffle<i32>(four, four, 2, 3, 0, 1)), 16);
  }
}

/** One sample under the sixteen taps of a row of the table, as four partial sums; `at` is an index that may run past the end of the ring. */
@inline
function partial(ring: usize, at: i32, mask: i32, row: usize): v128 {
  if (at + 15 <= mask) {
    const from = ring + (<usize>at << 2);
    const early = f32x4.add(f32x4.mul(v128.load(row), v128.load(from)), f32x4.mul(v128.load(row, 16), v128.load(from, 16)));
    return f32x4.add(early, f32x4.add(f32x4.mul(v128.load(row, 32), v128.load(from, 32)), f32x4.mul(v128.load(row, 48), v128.load(from, 48))));
  }
  let sum: f32 = 0;
  for (let k = 0; k < 16; k += 1) sum += load<f32>(row + (<usize>k << 2)) * load<f32>(ring + (<usize>((at + k) & mask) << 2));
  return f32x4(sum, 0, 0, 0);
}

/**
 * Reads samples, each at its own delay (f64, at `delays`), by the nearest row of the table at `table`, into f64 at `to`.
 * @param place where the next sample is written  @param mask length of the ring less one
 * @returns false when a delay is too short for sixteen taps
 */
export function readMoving(ring: usize, place: i32, mask: i32, delays: usize, frames: i32, table: usize, to: usize): bool {
  for (let i = 0; i < frames; i += 1) {
    const delay = load<f64>(delays + (<usize>i << 3));
    if (delay < SHORTEST) return false;
    const from = <f64>(place + i) - delay;
    const whole = Math.floor(from);
    const row = table + (<usize>(<i32>((from - whole) * PHASES + 0.5)) << 6);
    const sums = partial(ring, (<i32>whole - BEFORE) & mask, mask, row);
    const halves = f32x4.add(sums, v128.shuffle<i32>(sums, sums, 2, 3, 0, 1));
    store<f64>(to + (<usize>i << 3), <f64>(f32x4.extract_lane(halves, 0) + f32x4.extract_lane(halves, 1)));
  }
  return true;
}

@inline
function setting(index: usize): v128 {
  return v128.load(SETTINGS + index * 16);
}

/**
 * @param readLeft @param readRight addresses of the first repeat, or of the first sample under the kernel when between samples
 * @param writeLeft @param writeRight addresses of the next place of each ring
 * @returns the highest level written
 */
export function step(readLeft: usize, readRight: usize, writeLeft: usize, writeRight: usize, between: bool, filtered: bool, crossing: bool): f64 {
  if (between) {
    readBetween(readLeft, KERNEL, BETWEEN);
    readBetween(readRight, KERNEL + 64, BETWEEN + 256);
    readLeft = BETWEEN;
    readRight = BETWEEN + 256;
  }
  const fromOwn = setting(0);
  const fromLow = setting(1);
  const lowFromOwn = setting(2);
  const lowFromLow = setting(3);
  const intoOwn = setting(4);
  const intoLow = setting(5);
  const outX = setting(6);
  const outOwn = setting(7);
  const outLow = setting(8);
  const own = setting(9);
  const stays = setting(10);
  const other = setting(11);
  const over = setting(12);
  let s1 = setting(13);
  let s2 = setting(14);
  let peak = f64x2.splat(0);
  for (let i: usize = 0; i < FRAMES; i += 1) {
    let y = f64x2.promote_low_f32x4(v128.load32_lane(readRight + i * 4, v128.load32_zero(readLeft + i * 4), 1));
    if (filtered) {
      const x = y;
      y = f64x2.add(f64x2.mul(outX, x), f64x2.add(f64x2.mul(outOwn, s1), f64x2.mul(outLow, s2)));
      // Both states from both states: a third of the way from sample to sample that the filter's own steps take.
      const next = f64x2.add(f64x2.mul(intoOwn, x), f64x2.sub(f64x2.mul(fromOwn, s1), f64x2.mul(fromLow, s2)));
      s2 = f64x2.add(f64x2.mul(intoLow, x), f64x2.add(f64x2.mul(lowFromOwn, s1), f64x2.mul(lowFromLow, s2)));
      s1 = next;
    }
    v128.store64_lane(OUTPUT + i * 8, y, 0);
    v128.store64_lane(OUTPUT + 512 + i * 8, y, 1);
    const x = v128.load64_lane(INPUT + 512 + i * 8, v128.load64_zero(INPUT + i * 8), 1);
    let into = f64x2.add(f64x2.mul(own, x), f64x2.mul(stays, y));
    if (crossing) {
      const swappedIn = v128.shuffle<f64>(x, x, 1, 0);
      const swappedBack = v128.shuffle<f64>(y, y, 1, 0);
      into = f64x2.add(into, f64x2.add(f64x2.mul(other, swappedIn), f64x2.mul(over, swappedBack)));
    }
    peak = f64x2.max(peak, f64x2.abs(into));
    const written = f32x4.demote_f64x2_zero(into);
    v128.store32_lane(writeLeft + i * 4, written, 0);
    v128.store32_lane(writeRight + i * 4, written, 1);
  }
  v128.store(SETTINGS + 208, s1);
  v128.store(SETTINGS + 224, s2);
  return max(f64x2.extract_lane(peak, 0), f64x2.extract_lane(peak, 1));
}
