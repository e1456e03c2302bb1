// AssemblyScript. Shared by kernels that read between samples.

import { madd } from './madd.as';

const FRAMES: usize = 64;
const TAPS: usize = 16;

/** A run of FRAMES samples read between samples: thirty-two at a time, so that they share each tap's factor and none waits for another. */
export function readBetween(from: usize, kernel: usize, to: usize): void {
  for (let i: usize = 0; i < FRAMES * 4; i += 128) {
    let a = f32x4.splat(0), b = a, c = a, d = a, e = a, f = a, g = a, h = a;
    for (let tap: usize = 0; tap < TAPS * 4; tap += 4) {
      const factor = v128.load32_splat(kernel + tap);
      const at = from + i + tap;
      a = madd(factor, v128.load(at), a);
      b = madd(factor, v128.load(at, 16), b);
      c = madd(factor, v128.load(at, 32), c);
      d = madd(factor, v128.load(at, 48), d);
      e = madd(factor, v128.load(at, 64), e);
      f = madd(factor, v128.load(at, 80), f);
      g = madd(factor, v128.load(at, 96), g);
      h = madd(factor, v128.load(at, 112), h);
    }
    v128.store(to + i, a);
    v128.store(to + i, b, 16);
    v128.store(to + i, c, 32);
    v128.store(to + i, d, 48);
    v128.store(to + i, e, 64);
    v128.store(to + i, f, 80);
    v128.store(to + i, g, 96);
    v128.store(to + i, h, 112);
  }
}
