// AssemblyScript. One step of an echo's loop in which nothing moves: reading, filter, mixing, writing, both sides at
// once. The same work in TypeScript: effects/echo/steadyLoop.ts and DelayLine.readFixed. Layout of the memory:
// echoKernel.ts.

import { readBetween } from '../shared/between.as';
import { maddTwo } from '../shared/madd.as';

const FRAMES: usize = 64;
const SETTINGS: usize = 0;
const KERNEL: usize = 384;
const INPUT: usize = 512;
const OUTPUT: usize = 1536;
const BETWEEN: usize = 2560;

@inline
function setting(index: usize): v128 {
  return v128.load(SETTINGS + index * 16);
}

/** One side of a setting. */
@inline
function side(index: usize, bytes: usize): v128 {
  return v128.load64_splat(SETTINGS + index * 16 + bytes);
}

/**
 * @param readLeft
 * @param readRight addresses of the first repeat, or of the first sample under the kernel when between samples
 * @param writeLeft
 * @param writeRight addresses of the next place of each ring
 * @returns the highest level written
 */
export function step(
  readLeft: usize,
  readRight: usize,
  writeLeft: usize,
  writeRight: usize,
  between: bool,
  filtered: bool,
  crossing: bool,
): f64 {
  if (between) {
    readBetween(readLeft, KERNEL, BETWEEN);
    readBetween(readRight, KERNEL + 64, BETWEEN + 256);
    readLeft = BETWEEN;
    readRight = BETWEEN + 256;
  }
  const own1 = setting(0),
    own2 = setting(1),
    ownThen = setting(2),
    ownNow = setting(3);
  const low1 = setting(4),
    low2 = setting(5),
    lowThen = setting(6),
    lowNow = setting(7);
  const direct = setting(8),
    first1 = setting(9),
    first2 = setting(10);
  const second1 = setting(11),
    second2 = setting(12),
    secondThen = setting(13);
  const ownLeft = side(14, 0),
    ownRight = side(14, 8);
  const stays = setting(15);
  const otherLeft = side(16, 0),
    otherRight = side(16, 8);
  const over = setting(17);
  let s1 = setting(18);
  let s2 = setting(19);
  let peak = f64x2.splat(0);
  // Two moments at once: for the filter left is beside right, for all else a moment beside the next.
  for (let i: usize = 0; i < FRAMES; i += 2) {
    const both = v128.shuffle<f32>(v128.load64_zero(readLeft + i * 4), v128.load64_zero(readRight + i * 4), 0, 4, 1, 5);
    let y = f64x2.promote_low_f32x4(both);
    let z = f64x2.promote_low_f32x4(v128.shuffle<f64>(both, both, 1, 1));
    if (filtered) {
      // States two moments on from those of now: half as long a way from sample to sample as one moment after the
      // other.
      const x = y,
        x1 = z;
      y = maddTwo(first1, s1, maddTwo(first2, s2, f64x2.mul(direct, x)));
      const rest = maddTwo(secondThen, x, f64x2.mul(direct, x1));
      const next = maddTwo(own1, s1, maddTwo(own2, s2, maddTwo(ownThen, x, f64x2.mul(ownNow, x1))));
      z = maddTwo(second1, s1, maddTwo(second2, s2, rest));
      s2 = maddTwo(low1, s1, maddTwo(low2, s2, maddTwo(lowThen, x, f64x2.mul(lowNow, x1))));
      s1 = next;
    }
    const left = v128.shuffle<f64>(y, z, 0, 2),
      right = v128.shuffle<f64>(y, z, 1, 3);
    v128.store(OUTPUT + i * 8, left);
    v128.store(OUTPUT + 512 + i * 8, right);
    const inLeft = v128.load(INPUT + i * 8),
      inRight = v128.load(INPUT + 512 + i * 8);
    let intoLeft = maddTwo(ownLeft, inLeft, f64x2.mul(stays, left));
    let intoRight = maddTwo(ownRight, inRight, f64x2.mul(stays, right));
    if (crossing) {
      intoLeft = maddTwo(otherLeft, inRight, maddTwo(over, right, intoLeft));
      intoRight = maddTwo(otherRight, inLeft, maddTwo(over, left, intoRight));
    }
    peak = f64x2.pmax(peak, f64x2.pmax(f64x2.abs(intoLeft), f64x2.abs(intoRight)));
    v128.store64_lane(writeLeft + i * 4, f32x4.demote_f64x2_zero(intoLeft), 0);
    v128.store64_lane(writeRight + i * 4, f32x4.demote_f64x2_zero(intoRight), 0);
  }
  v128.store(SETTINGS + 18 * 16, s1);
  v128.store(SETTINGS + 19 * 16, s2);
  return max(f64x2.extract_lane(peak, 0), f64x2.extract_lane(peak, 1));
}
