// AssemblyScript. The parts of a partitioned convolution: Fourier transform, multiply-add of spectra, and taking two
// real sides in and out of one complex transform. The same work in TypeScript: reference.ts. All arrays are f32; re and
// im are apart. Addresses are bytes.

import { madd, nmadd } from '../shared/madd.as';

/**
 * Passes `from` until `until` of a complex transform of `size` (a power of two from 16 on), from one place to the other
 * and back. All passes make the transform: passes of four, and a last one of two where the size asks for it. Which
 * place the first begins at follows from its number, as the last, number `count` - 1, ends at `re` and `im`. `turns`
 * holds six tables of size/4: cos and -sin of one, two and three times each angle.
 * Source: T. G. Stockham, "High-speed convolution and correlation" (1966): self-sorting.
 */
export function passes(
  from: i32,
  until: i32,
  count: i32,
  size: i32,
  re: usize,
  im: usize,
  otherRe: usize,
  otherIm: usize,
  turns: usize,
): void {
  for (let index = from; index < until; index += 1) {
    if ((index ^ count) & 1) pass(index, size, otherRe, otherIm, re, im, turns);
    else pass(index, size, re, im, otherRe, otherIm, turns);
  }
}

function pass(index: i32, size: i32, fromRe: usize, fromIm: usize, toRe: usize, toIm: usize, turns: usize): void {
  const quarter = <usize>size;
  const length = size >> (2 * index);
  const stride = (<usize>1) << (2 * index);
  if (index === 0) firstPass(quarter, fromRe, fromIm, toRe, toIm, turns);
  else if (length >= 4) fourPass(length, stride, quarter, fromRe, fromIm, toRe, toIm, turns);
  else twoPass(stride << 2, fromRe, fromIm, toRe, toIm);
}

function twoPass(half: usize, fromRe: usize, fromIm: usize, toRe: usize, toIm: usize): void {
  for (let q: usize = 0; q < half; q += 16) {
    const ar = v128.load(fromRe + q),
      ai = v128.load(fromIm + q);
    const br = v128.load(fromRe + half + q),
      bi = v128.load(fromIm + half + q);
    v128.store(toRe + q, f32x4.add(ar, br));
    v128.store(toIm + q, f32x4.add(ai, bi));
    v128.store(toRe + half + q, f32x4.sub(ar, br));
    v128.store(toIm + half + q, f32x4.sub(ai, bi));
  }
}

@inline
function storeFour(at: usize, a: v128, b: v128, c: v128, d: v128): void {
  const t0 = v128.shuffle<i32>(a, b, 0, 4, 1, 5),
    t1 = v128.shuffle<i32>(c, d, 0, 4, 1, 5);
  const t2 = v128.shuffle<i32>(a, b, 2, 6, 3, 7),
    t3 = v128.shuffle<i32>(c, d, 2, 6, 3, 7);
  v128.store(at, v128.shuffle<i64>(t0, t1, 0, 2));
  v128.store(at, v128.shuffle<i64>(t0, t1, 1, 3), 16);
  v128.store(at, v128.shuffle<i64>(t2, t3, 0, 2), 32);
  v128.store(at, v128.shuffle<i64>(t2, t3, 1, 3), 48);
}

/** Stride 1: four neighbouring angles at once, turned round when they are stored. */
function firstPass(quarter: usize, re: usize, im: usize, toRe: usize, toIm: usize, turns: usize): void {
  for (let p: usize = 0; p < quarter; p += 16) {
    const ar = v128.load(re + p),
      ai = v128.load(im + p);
    const br = v128.load(re + quarter + p),
      bi = v128.load(im + quarter + p);
    const cr = v128.load(re + 2 * quarter + p),
      ci = v128.load(im + 2 * quarter + p);
    const dr = v128.load(re + 3 * quarter + p),
      di = v128.load(im + 3 * quarter + p);
    const sr = f32x4.add(ar, cr),
      si = f32x4.add(ai, ci);
    const tr = f32x4.sub(ar, cr),
      ti = f32x4.sub(ai, ci);
    const ur = f32x4.add(br, dr),
      ui = f32x4.add(bi, di);
    // (b - d) times -i
    const vr = f32x4.sub(bi, di),
      vi = f32x4.sub(dr, br);
    const w1r = v128.load(turns + p),
      w1i = v128.load(turns + quarter + p);
    const w2r = v128.load(turns + 2 * quarter + p),
      w2i = v128.load(turns + 3 * quarter + p);
    const w3r = v128.load(turns + 4 * quarter + p),
      w3i = v128.load(turns + 5 * quarter + p);
    const x1r = f32x4.add(tr, vr),
      x1i = f32x4.add(ti, vi);
    const x2r = f32x4.sub(sr, ur),
      x2i = f32x4.sub(si, ui);
    const x3r = f32x4.sub(tr, vr),
      x3i = f32x4.sub(ti, vi);
    storeFour(
      toRe + 4 * p,
      f32x4.add(sr, ur),
      nmadd(x1i, w1i, f32x4.mul(x1r, w1r)),
      nmadd(x2i, w2i, f32x4.mul(x2r, w2r)),
      nmadd(x3i, w3i, f32x4.mul(x3r, w3r)),
    );
    storeFour(
      toIm + 4 * p,
      f32x4.add(si, ui),
      madd(x1i, w1r, f32x4.mul(x1r, w1i)),
      madd(x2i, w2r, f32x4.mul(x2r, w2i)),
      madd(x3i, w3r, f32x4.mul(x3r, w3i)),
    );
  }
}

/** Four neighbouring columns at once, which share their angle. */
function fourPass(
  length: i32,
  stride: usize,
  quarter: usize,
  re: usize,
  im: usize,
  toRe: usize,
  toIm: usize,
  turns: usize,
): void {
  const m = <usize>(length >> 2);
  const row = stride << 2;
  const block = m * row;
  for (let p: usize = 0; p < m; p += 1) {
    const angle = turns + p * row;
    const w1r = v128.load32_splat(angle),
      w1i = v128.load32_splat(angle + quarter);
    const w2r = v128.load32_splat(angle + 2 * quarter),
      w2i = v128.load32_splat(angle + 3 * quarter);
    const w3r = v128.load32_splat(angle + 4 * quarter),
      w3i = v128.load32_splat(angle + 5 * quarter);
    for (let q: usize = 0; q < row; q += 16) {
      const at = p * row + q;
      const ar = v128.load(re + at),
        ai = v128.load(im + at);
      const br = v128.load(re + block + at),
        bi = v128.load(im + block + at);
      const cr = v128.load(re + 2 * block + at),
        ci = v128.load(im + 2 * block + at);
      const dr = v128.load(re + 3 * block + at),
        di = v128.load(im + 3 * block + at);
      const sr = f32x4.add(ar, cr),
        si = f32x4.add(ai, ci);
      const tr = f32x4.sub(ar, cr),
        ti = f32x4.sub(ai, ci);
      const ur = f32x4.add(br, dr),
        ui = f32x4.add(bi, di);
      const vr = f32x4.sub(bi, di),
        vi = f32x4.sub(dr, br);
      const x1r = f32x4.add(tr, vr),
        x1i = f32x4.add(ti, vi);
      const x2r = f32x4.sub(sr, ur),
        x2i = f32x4.sub(si, ui);
      const x3r = f32x4.sub(tr, vr),
        x3i = f32x4.sub(ti, vi);
      const to = 4 * p * row + q;
      v128.store(toRe + to, f32x4.add(sr, ur));
      v128.store(toIm + to, f32x4.add(si, ui));
      v128.store(toRe + to + row, nmadd(x1i, w1i, f32x4.mul(x1r, w1r)));
      v128.store(toIm + to + row, madd(x1i, w1r, f32x4.mul(x1r, w1i)));
      v128.store(toRe + to + 2 * row, nmadd(x2i, w2i, f32x4.mul(x2r, w2r)));
      v128.store(toIm + to + 2 * row, madd(x2i, w2r, f32x4.mul(x2r, w2i)));
      v128.store(toRe + to + 3 * row, nmadd(x3i, w3i, f32x4.mul(x3r, w3r)));
      v128.store(toIm + to + 3 * row, madd(x3i, w3r, f32x4.mul(x3r, w3i)));
    }
  }
}

/** Bytes of four bins of both sides: a line of the cache. */
const FOUR: usize = 64;

/** The re of a sum with x * h added. */
@inline
function real(sum: v128, xr: v128, hr: v128, xi: v128, hi: v128): v128 {
  return nmadd(xi, hi, madd(xr, hr, sum));
}

@inline
function imaginary(sum: v128, xr: v128, hr: v128, xi: v128, hi: v128): v128 {
  return madd(xi, hr, madd(xr, hi, sum));
}

/**
 * Past input times impulse, summed over `count` partitions, for the bins from `from` until `until`, multiples of four:
 * the whole sums of this block, and of the next block all that does not wait for its input. What is read serves both;
 * all is read one way through memory.
 * @param past a ring of spectra, the newest at `newest`
 */
export function multiply(
  from: i32,
  until: i32,
  sums: usize,
  ahead: usize,
  past: usize,
  impulse: usize,
  count: i32,
  newest: i32,
): void {
  const way = <usize>count * FOUR;
  const first = <usize>(from >> 2),
    last = <usize>(until >> 2);
  for (let at = first; at < last; at += 1)
    multiplyFour(sums + at * FOUR, ahead + at * FOUR, past + at * way, impulse + at * way, count, newest);
  if (from > 0 || until === 0) return;
  let now = f32x4.splat(0),
    next = now;
  for (let p = 0, slot = newest, before = newest; p < count; p += 1) {
    const h = endsAt(impulse + <usize>p * FOUR);
    now = f32x4.add(now, f32x4.mul(endsAt(past + <usize>slot * FOUR), h));
    if (p > 0) next = f32x4.add(next, f32x4.mul(endsAt(past + <usize>before * FOUR), h));
    before = slot;
    slot = slot + 1 === count ? 0 : slot + 1;
  }
  putEnds(sums, now);
  putEnds(ahead, next);
}

/** Four bins, whose sums stay in registers. */
@inline
function multiplyFour(to: usize, ahead: usize, past: usize, impulse: usize, count: i32, newest: i32): void {
  let x = past + <usize>newest * FOUR,
    h = impulse;
  let xr = v128.load(x),
    xi = v128.load(x, 16),
    hr = v128.load(h),
    hi = v128.load(h, 16);
  let a = f32x4.sub(f32x4.mul(xr, hr), f32x4.mul(xi, hi)),
    b = madd(xi, hr, f32x4.mul(xr, hi));
  xr = v128.load(x, 32);
  xi = v128.load(x, 48);
  hr = v128.load(h, 32);
  hi = v128.load(h, 48);
  let c = f32x4.sub(f32x4.mul(xr, hr), f32x4.mul(xi, hi)),
    d = madd(xi, hr, f32x4.mul(xr, hi));
  let e = f32x4.splat(0),
    f = e,
    g = e,
    i = e;
  const turn = count - newest;
  for (let p = 1; p < count; p += 1) {
    const y = x;
    x = p === turn ? past : x + FOUR;
    h += FOUR;
    hr = v128.load(h);
    hi = v128.load(h, 16);
    xr = v128.load(x);
    xi = v128.load(x, 16);
    a = real(a, xr, hr, xi, hi);
    b = imaginary(b, xr, hr, xi, hi);
    xr = v128.load(y);
    xi = v128.load(y, 16);
    e = real(e, xr, hr, xi, hi);
    f = imaginary(f, xr, hr, xi, hi);
    hr = v128.load(h, 32);
    hi = v128.load(h, 48);
    xr = v128.load(x, 32);
    xi = v128.load(x, 48);
    c = real(c, xr, hr, xi, hi);
    d = imaginary(d, xr, hr, xi, hi);
    xr = v128.load(y, 32);
    xi = v128.load(y, 48);
    g = real(g, xr, hr, xi, hi);
    i = imaginary(i, xr, hr, xi, hi);
  }
  v128.store(to, a);
  v128.store(to, b, 16);
  v128.store(to, c, 32);
  v128.store(to, d, 48);
  v128.store(ahead, e);
  v128.store(ahead, f, 16);
  v128.store(ahead, g, 32);
  v128.store(ahead, i, 48);
}

/**
 * The sums of this block out of what was summed ahead for it and its input times the first partition. Otherwise as
 * `multiply`.
 */
export function complete(
  from: i32,
  until: i32,
  sums: usize,
  ahead: usize,
  past: usize,
  impulse: usize,
  count: i32,
  newest: i32,
): void {
  const way = <usize>count * FOUR;
  const latest = past + <usize>newest * FOUR;
  for (let at = <usize>(from >> 2), last = <usize>(until >> 2); at < last; at += 1) {
    const to = sums + at * FOUR,
      known = ahead + at * FOUR,
      x = latest + at * way,
      h = impulse + at * way;
    for (let side: usize = 0; side < FOUR; side += 32) {
      const xr = v128.load(x + side),
        xi = v128.load(x + side, 16),
        hr = v128.load(h + side),
        hi = v128.load(h + side, 16);
      v128.store(to + side, real(v128.load(known + side), xr, hr, xi, hi));
      v128.store(to + side, imaginary(v128.load(known + side, 16), xr, hr, xi, hi), 16);
    }
  }
  if (from > 0 || until === 0) return;
  putEnds(sums, f32x4.add(endsAt(ahead), f32x4.mul(endsAt(latest), endsAt(impulse))));
}

/** The two real figures that bin 0 holds on each side: left at nought and at half the rate, then right. */
@inline
function endsAt(spectrum: usize): v128 {
  return v128.shuffle<i64>(
    v128.shuffle<i32>(v128.load(spectrum), v128.load(spectrum, 16), 0, 4, 0, 4),
    v128.shuffle<i32>(v128.load(spectrum, 32), v128.load(spectrum, 48), 0, 4, 0, 4),
    0,
    2,
  );
}

@inline
function putEnds(spectrum: usize, ends: v128): void {
  v128.store_lane<f32>(spectrum, ends, 0);
  v128.store_lane<f32>(spectrum, ends, 1, 16);
  v128.store_lane<f32>(spectrum, ends, 2, 32);
  v128.store_lane<f32>(spectrum, ends, 3, 48);
}

/** Copies figures, a multiple of sixteen. */
export function copy(to: usize, from: usize, figures: i32): void {
  for (let i: usize = 0; i < (<usize>figures) << 2; i += 64) {
    v128.store(to + i, v128.load(from + i));
    v128.store(to + i, v128.load(from + i, 16), 16);
    v128.store(to + i, v128.load(from + i, 32), 32);
    v128.store(to + i, v128.load(from + i, 48), 48);
  }
}

/**
 * Copies a step of 64 figures of each side, which are one after the other, to where they are wanted, and empties as
 * many at `out`.
 */
export function enter(left: usize, right: usize, from: usize, out: usize): void {
  copy(left, from, 64);
  copy(right, from + 256, 64);
  const nothing = f32x4.splat(0);
  for (let i: usize = 0; i < 512; i += 16) v128.store(out + i, nothing);
}

/** Adds a step of 64 figures. */
export function addStep(to: usize, from: usize): void {
  for (let i: usize = 0; i < 256; i += 16) v128.store(to + i, f32x4.add(v128.load(to + i), v128.load(from + i)));
}

@inline
function turned(v: v128): v128 {
  return v128.shuffle<i32>(v, v, 3, 2, 1, 0);
}

/**
 * Takes the spectra of two real sides out of the transform of left + i right, as `multiply` wants them. Bin 0 of each
 * holds its real value at 0 in re and that at half the rate in im. The first turn of the loop reaches one figure past
 * `re` and `im`, into memory that follows them, and leaves in bin 0 what is put right afterwards.
 * @param size bins kept of each side
 * @param count spectra that are in each other there
 */
export function part(size: i32, re: usize, im: usize, to: usize, count: i32): void {
  const bytes = (<usize>size) << 2;
  const scale = f32x4.splat(<f32>0.5);
  const way = <usize>count * FOUR;
  for (let a: usize = 0; a < bytes; a += 16) {
    const b = 2 * bytes - a - 12;
    const ar = v128.load(re + a),
      ai = v128.load(im + a),
      br = turned(v128.load(re + b)),
      bi = turned(v128.load(im + b));
    const four = to + (a >> 4) * way;
    v128.store(four, f32x4.mul(scale, f32x4.add(ar, br)));
    v128.store(four, f32x4.mul(scale, f32x4.sub(ai, bi)), 16);
    v128.store(four, f32x4.mul(scale, f32x4.add(ai, bi)), 32);
    v128.store(four, f32x4.mul(scale, f32x4.sub(br, ar)), 48);
  }
  store<f32>(to, load<f32>(re));
  store<f32>(to, load<f32>(re + bytes), 16);
  store<f32>(to, load<f32>(im), 32);
  store<f32>(to, load<f32>(im + bytes), 48);
}

/**
 * The way back: left + i right, scaled, with re and im changed over so that a forward transform gives the inverse. As
 * `part`, it touches one figure past `re` and `im`, which must have room behind them.
 */
export function join(size: i32, from: usize, re: usize, im: usize, scale: f32): void {
  const bytes = (<usize>size) << 2;
  const scales = f32x4.splat(scale);
  for (let a: usize = 0; a < bytes; a += 16) {
    const b = 2 * bytes - a - 12;
    const four = from + 4 * a;
    const lr = f32x4.mul(scales, v128.load(four)),
      li = f32x4.mul(scales, v128.load(four, 16));
    const rr = f32x4.mul(scales, v128.load(four, 32)),
      ri = f32x4.mul(scales, v128.load(four, 48));
    v128.store(re + b, turned(f32x4.sub(rr, li)));
    v128.store(im + b, turned(f32x4.add(lr, ri)));
    v128.store(re + a, f32x4.add(li, rr));
    v128.store(im + a, f32x4.sub(lr, ri));
  }
  store<f32>(im, scale * load<f32>(from));
  store<f32>(re, scale * load<f32>(from, 32));
  store<f32>(im + bytes, scale * load<f32>(from, 16));
  store<f32>(re + bytes, scale * load<f32>(from, 48));
}
