// AssemblyScript. Finite impulse responses over 64 samples: a filter, and peaks between samples by several filters. The
// same work in TypeScript: dsp/fir.ts, dsp/truePeak.ts. Addresses are bytes, figures are f32.

import { madd } from '../shared/madd.as';

const RUN: usize = 256;

@inline
function higher(most: v128, read: v128): v128 {
  return f32x4.max(most, f32x4.abs(read));
}

/**
 * Raises 64 figures at `out` to the peaks of a row of the last 64 samples and the 64 of a run, and to its samples.
 * Thirty-two at once, so that none waits for another.
 * @param table rows of taps, of which the first is left: there stands the sample itself
 * @param phases rows
 * @param first byte in the row under the first tap
 */
export function peaks(table: usize, phases: usize, taps: usize, row: usize, first: usize, out: usize): void {
  for (let block: usize = 0; block < RUN; block += 128) {
    const to = out + block;
    // At the first phase stands the sample itself.
    const own = row + block + 128;
    let m0 = higher(v128.load(to), v128.load(own)),
      m1 = higher(v128.load(to, 16), v128.load(own, 16));
    let m2 = higher(v128.load(to, 32), v128.load(own, 32)),
      m3 = higher(v128.load(to, 48), v128.load(own, 48));
    let m4 = higher(v128.load(to, 64), v128.load(own, 64)),
      m5 = higher(v128.load(to, 80), v128.load(own, 80));
    let m6 = higher(v128.load(to, 96), v128.load(own, 96)),
      m7 = higher(v128.load(to, 112), v128.load(own, 112));
    let tap = table + 4 * taps;
    for (let phase: usize = 1; phase < phases; phase += 1) {
      let a = f32x4.splat(0),
        b = a,
        c = a,
        d = a,
        e = a,
        f = a,
        g = a,
        h = a;
      let from = row + block + first;
      for (const end = tap + 4 * taps; tap < end; tap += 4) {
        const k = v128.load32_splat(tap);
        a = madd(k, v128.load(from), a);
        b = madd(k, v128.load(from, 16), b);
        c = madd(k, v128.load(from, 32), c);
        d = madd(k, v128.load(from, 48), d);
        e = madd(k, v128.load(from, 64), e);
        f = madd(k, v128.load(from, 80), f);
        g = madd(k, v128.load(from, 96), g);
        h = madd(k, v128.load(from, 112), h);
        from += 4;
      }
      m0 = higher(m0, a);
      m1 = higher(m1, b);
      m2 = higher(m2, c);
      m3 = higher(m3, d);
      m4 = higher(m4, e);
      m5 = higher(m5, f);
      m6 = higher(m6, g);
      m7 = higher(m7, h);
    }
    v128.store(to, m0);
    v128.store(to, m1, 16);
    v128.store(to, m2, 32);
    v128.store(to, m3, 48);
    v128.store(to, m4, 64);
    v128.store(to, m5, 80);
    v128.store(to, m6, 96);
    v128.store(to, m7, 112);
  }
}

/** Sixty-four samples of a row through a filter of `count` taps: each the sum of so many from its place on. */
export function filter(taps: usize, count: i32, row: usize, out: usize): void {
  for (let block: usize = 0; block < RUN; block += 128) {
    let a = f32x4.splat(0),
      b = a,
      c = a,
      d = a,
      e = a,
      f = a,
      g = a,
      h = a;
    let from = row + block;
    for (let tap = taps, end = taps + 4 * <usize>count; tap < end; tap += 4) {
      const k = v128.load32_splat(tap);
      a = madd(k, v128.load(from), a);
      b = madd(k, v128.load(from, 16), b);
      c = madd(k, v128.load(from, 32), c);
      d = madd(k, v128.load(from, 48), d);
      e = madd(k, v128.load(from, 64), e);
      f = madd(k, v128.load(from, 80), f);
      g = madd(k, v128.load(from, 96), g);
      h = madd(k, v128.load(from, 112), h);
      from += 4;
    }
    const to = out + block;
    v128.store(to, a);
    v128.store(to, b, 16);
    v128.store(to, c, 32);
    v128.store(to, d, 48);
    v128.store(to, e, 64);
    v128.store(to, f, 80);
    v128.store(to, g, 96);
    v128.store(to, h, 112);
  }
}
