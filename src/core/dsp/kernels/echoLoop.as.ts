// AssemblyScript. One step of an echo's loop in which nothing moves: reading, filter, mixing, writing, both sides at once.
// The same work in TypeScript: effects/echo/steadyLoop.ts and DelayLine.readFixed. Layout of the memory: echoKernel.ts.

const FRAMES: usize = 64;
const TAPS: usize = 16;
const SETTINGS: usize = 0;
const KERNEL: usize = 256;
const INPUT: usize = 512;
const OUTPUT: usize = 1536;
const BETWEEN: usize = 2560;

/** A run of FRAMES samples read between samples: four at a time, sixteen taps each. */
function readBetween(from: usize, kernel: usize, to: usize): void {
  for (let i: usize = 0; i < FRAMES * 4; i += 16) {
    let even = f32x4.splat(0);
    let odd = f32x4.splat(0);
    for (let tap: usize = 0; tap < TAPS * 4; tap += 8) {
      even = f32x4.add(even, f32x4.mul(v128.load32_splat(kernel + tap), v128.load(from + i + tap)));
      odd = f32x4.add(odd, f32x4.mul(v128.load32_splat(kernel + tap + 4), v128.load(from + i + tap + 4)));
    }
    v128.store(to + i, f32x4.add(even, odd));
  }
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
  const g = setting(0);
  const a1 = setting(1);
  const a2 = setting(2);
  const direct = setting(3);
  const band = setting(4);
  const low = setting(5);
  const own = setting(6);
  const stays = setting(7);
  const other = setting(8);
  const over = setting(9);
  let s1 = setting(10);
  let s2 = setting(11);
  let peak = f64x2.splat(0);
  for (let i: usize = 0; i < FRAMES; i += 1) {
    let y = f64x2.promote_low_f32x4(v128.load32_lane(readRight + i * 4, v128.load32_zero(readLeft + i * 4), 1));
    if (filtered) {
      const v1 = f64x2.add(f64x2.mul(a1, s1), f64x2.mul(a2, f64x2.sub(y, s2)));
      const v2 = f64x2.add(s2, f64x2.mul(g, v1));
      s1 = f64x2.sub(f64x2.add(v1, v1), s1);
      s2 = f64x2.sub(f64x2.add(v2, v2), s2);
      y = f64x2.add(f64x2.add(f64x2.mul(direct, y), f64x2.mul(band, v1)), f64x2.mul(low, v2));
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
  v128.store(SETTINGS + 160, s1);
  v128.store(SETTINGS + 176, s2);
  return max(f64x2.extract_lane(peak, 0), f64x2.extract_lane(peak, 1));
}
