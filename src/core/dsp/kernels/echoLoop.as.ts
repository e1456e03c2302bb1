// AssemblyScript. One step of an echo's loop in which nothing moves: reading, filter, mixing, writing, both sides at once.
// The same work in TypeScript: effects/echo/steadyLoop.ts and DelayLine.readFixed. Layout of the memory: echoKernel.ts.

import { readBetween } from './between.as';
import { maddTwo, nmaddTwo } from './madd.as';

const FRAMES: usize = 64;
const SETTINGS: usize = 0;
const KERNEL: usize = 256;
const INPUT: usize = 512;
const OUTPUT: usize = 1536;
const BETWEEN: usize = 2560;

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
      y = maddTwo(outOwn, s1, maddTwo(outLow, s2, f64x2.mul(outX, x)));
      // Both states from both states: a third of the way from sample to sample that the filter's own steps take.
      const next = nmaddTwo(fromLow, s2, maddTwo(fromOwn, s1, f64x2.mul(intoOwn, x)));
      s2 = maddTwo(lowFromLow, s2, maddTwo(lowFromOwn, s1, f64x2.mul(intoLow, x)));
      s1 = next;
    }
    v128.store64_lane(OUTPUT + i * 8, y, 0);
    v128.store64_lane(OUTPUT + 512 + i * 8, y, 1);
    const x = v128.load64_lane(INPUT + 512 + i * 8, v128.load64_zero(INPUT + i * 8), 1);
    let into = maddTwo(own, x, f64x2.mul(stays, y));
    if (crossing) {
      const swappedIn = v128.shuffle<f64>(x, x, 1, 0);
      const swappedBack = v128.shuffle<f64>(y, y, 1, 0);
      into = maddTwo(other, swappedIn, maddTwo(over, swappedBack, into));
    }
    peak = f64x2.pmax(peak, f64x2.abs(into));
    const written = f32x4.demote_f64x2_zero(into);
    v128.store32_lane(writeLeft + i * 4, written, 0);
    v128.store32_lane(writeRight + i * 4, written, 1);
  }
  v128.store(SETTINGS + 208, s1);
  v128.store(SETTINGS + 224, s2);
  return max(f64x2.extract_lane(peak, 0), f64x2.extract_lane(peak, 1));
}
