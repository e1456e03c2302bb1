// AssemblyScript. Shared by kernels that read between samples.

import { madd } from './madd.as';

const FRAMES: usize = 64;
const TAPS: usize = 16;

/** A run of FRAMES samples read between samples: sixteen at a time, so that they share each tap's factor. */
export function readBetween(from: usize, kernel: usize, to: usize): void {
  for (let i: usize = 0; i < FRAMES * 4; i += 64) {
    let a = f32x4.splat(0);
    let b = f32x4.splat(0);
    let c = f32x4.splat(0);
    let d = f32x4.splat(0);
    for (let tap: usize = 0; tap < TAPS * 4; tap += 4) {
      const factor = v128.load32_splat(kernel + tap);
      const at = from + i + tap;
      a = madd(factor, v128.load(at), a);
      b = madd(factor, v128.load(at, 16), b);
      c = madd(factor, v128.load(at, 32), c);
      d = madd(factor, v128.load(at, 48), d);
    }
    v128.store(to + i, a);
    v128.store(to + i, b, 16);
    v128.store(to + i, c, 32);
    v128.store(to + i, d, 48);
  }
}

