// AssemblyScript. Shared by kernels that read between samples.

import { madd } from './madd.as';

const FRAMES: usize = 64;

/**
 * A run of FRAMES samples read between samples: thirty-two at a time, so that none waits for another. Taps four apart
 * meet the same four samples, which so are fetched once: for the taps 0, 4, 8 and 12, then for those beside them.
 */
export function readBetween(from: usize, kernel: usize, to: usize): void {
  for (let i: usize = 0; i < FRAMES * 4; i += 128) {
    let a = f32x4.splat(0),
      b = a,
      c = a,
      d = a,
      e = a,
      f = a,
      g = a,
      h = a;
    for (let tap: usize = 0; tap < 16; tap += 4) {
      const k0 = v128.load32_splat(kernel + tap),
        k1 = v128.load32_splat(kernel + tap, 16),
        k2 = v128.load32_splat(kernel + tap, 32),
        k3 = v128.load32_splat(kernel + tap, 48);
      const at = from + i + tap;
      let x = v128.load(at);
      a = madd(k0, x, a);
      x = v128.load(at, 16);
      a = madd(k1, x, a);
      b = madd(k0, x, b);
      x = v128.load(at, 32);
      a = madd(k2, x, a);
      b = madd(k1, x, b);
      c = madd(k0, x, c);
      x = v128.load(at, 48);
      a = madd(k3, x, a);
      b = madd(k2, x, b);
      c = madd(k1, x, c);
      d = madd(k0, x, d);
      x = v128.load(at, 64);
      b = madd(k3, x, b);
      c = madd(k2, x, c);
      d = madd(k1, x, d);
      e = madd(k0, x, e);
      x = v128.load(at, 80);
      c = madd(k3, x, c);
      d = madd(k2, x, d);
      e = madd(k1, x, e);
      f = madd(k0, x, f);
      x = v128.load(at, 96);
      d = madd(k3, x, d);
      e = madd(k2, x, e);
      f = madd(k1, x, f);
      g = madd(k0, x, g);
      x = v128.load(at, 112);
      e = madd(k3, x, e);
      f = madd(k2, x, f);
      g = madd(k1, x, g);
      h = madd(k0, x, h);
      x = v128.load(at, 128);
      f = madd(k3, x, f);
      g = madd(k2, x, g);
      h = madd(k1, x, h);
      x = v128.load(at, 144);
      g = madd(k3, x, g);
      h = madd(k2, x, h);
      h = madd(k3, v128.load(at, 160), h);
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
