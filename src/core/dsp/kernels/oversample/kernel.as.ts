// AssemblyScript. Twice the rate and back by half-band filters, and shaping in between. The same work in TypeScript:
// reference.ts. All arrays are f32, addresses are bytes, counts are samples and multiples of thirty-two.

import { madd, nmadd } from '../shared/madd.as';

@inline
function laced(to: usize, half: v128, plain: v128): void {
  const even = f32x4.add(half, half);
  v128.store(to, v128.shuffle<f32>(even, plain, 0, 4, 1, 5));
  v128.store(to, v128.shuffle<f32>(even, plain, 2, 6, 3, 7), 16);
}

/**
 * Thirty-two samples at once, so that none waits for another, by twelve taps at a time. Taps four apart meet the same
 * four samples, which so are fetched once for three of them. Nothing is before the taps for as far as they are short of
 * twelves.
 * @param at the newest sample under the first result
 * @param count taps
 * @param to where the results go, or are added, as `add` says
 */
@inline
function filter(at: usize, taps: usize, count: i32, to: usize, add: bool): void {
  let a = f32x4.splat(0),
    b = a,
    c = a,
    d = a,
    e = a,
    f = a,
    g = a,
    h = a;
  if (add) {
    a = v128.load(to);
    b = v128.load(to, 16);
    c = v128.load(to, 32);
    d = v128.load(to, 48);
    e = v128.load(to, 64);
    f = v128.load(to, 80);
    g = v128.load(to, 96);
    h = v128.load(to, 112);
  }
  const twelves = (count + 11) / 12;
  let from = at - 4 * <usize>(12 * twelves - 1);
  let tap = taps - 4 * <usize>(12 * twelves - count);
  for (let n = 0; n < twelves; n += 1) {
    for (let end = from + 16; from < end; from += 4) {
      const k0 = v128.load32_splat(tap),
        k1 = v128.load32_splat(tap, 16),
        k2 = v128.load32_splat(tap, 32);
      let x = v128.load(from);
      a = madd(k0, x, a);
      x = v128.load(from, 16);
      a = madd(k1, x, a);
      b = madd(k0, x, b);
      x = v128.load(from, 32);
      a = madd(k2, x, a);
      b = madd(k1, x, b);
      c = madd(k0, x, c);
      x = v128.load(from, 48);
      b = madd(k2, x, b);
      c = madd(k1, x, c);
      d = madd(k0, x, d);
      x = v128.load(from, 64);
      c = madd(k2, x, c);
      d = madd(k1, x, d);
      e = madd(k0, x, e);
      x = v128.load(from, 80);
      d = madd(k2, x, d);
      e = madd(k1, x, e);
      f = madd(k0, x, f);
      x = v128.load(from, 96);
      e = madd(k2, x, e);
      f = madd(k1, x, f);
      g = madd(k0, x, g);
      x = v128.load(from, 112);
      f = madd(k2, x, f);
      g = madd(k1, x, g);
      h = madd(k0, x, h);
      x = v128.load(from, 128);
      g = madd(k2, x, g);
      h = madd(k1, x, h);
      h = madd(k2, v128.load(from, 144), h);
      tap += 4;
    }
    from += 32;
    tap += 32;
  }
  v128.store(to, a);
  v128.store(to, b, 16);
  v128.store(to, c, 32);
  v128.store(to, d, 48);
  v128.store(to, e, 64);
  v128.store(to, f, 80);
  v128.store(to, g, 96);
  v128.store(to, h, 112);
}

/**
 * @param from first of n samples, with as many before it as there are taps in whole twelves
 * @param to 2 n samples
 * @param half what the plain ones are late, in samples
 */
function up(from: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  for (let i: usize = 0; i < 4 * <usize>n; i += 128) {
    const plain = from + i - late,
      out = to + 2 * i;
    // The upper half of their place holds them until they are laced: each is read before its own place is written.
    const held = out + 128;
    filter(from + i, taps, count, held, false);
    for (let k: usize = 0; k < 128; k += 16) laced(out + 2 * k, v128.load(held + k), v128.load(plain + k));
  }
}

/** Takes 2 n samples apart into those at even and at odd places. */
function split(from: usize, even: usize, odd: usize, n: i32): void {
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const a = v128.load(from + 2 * i),
      b = v128.load(from + 2 * i, 16);
    v128.store(even + i, v128.shuffle<f32>(a, b, 0, 2, 4, 6));
    v128.store(odd + i, v128.shuffle<f32>(a, b, 1, 3, 5, 7));
  }
}

/**
 * @param even, odd first of n samples each, with as many before as there are taps in whole twelves
 * @param half what the odd ones are late, in samples
 */
function down(even: usize, odd: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  const share = kept(0.5);
  for (let i: usize = 0; i < 4 * <usize>n; i += 128) {
    filter(even + i, taps, count, to + i, false);
    for (let k = i; k < i + 128; k += 16) v128.store(to + k, madd(share, v128.load(odd + k - late), v128.load(to + k)));
  }
}

/** As `down`, by a filter that has taps for the odd ones too: one more for the even ones. */
function downSteeply(even: usize, odd: usize, to: usize, evenTaps: usize, oddTaps: usize, count: i32, n: i32): void {
  for (let i: usize = 0; i < 4 * <usize>n; i += 128) {
    filter(even + i, evenTaps, count, to + i, false);
    filter(odd + i - 4, oddTaps, count - 1, to + i, true);
  }
}

/** Exported, so that no compiler takes it for a constant. */
export let unit: f32 = 1;

/**
 * A constant for a loop. Browsers make one of four figures anew at each turn, which took longer than the curve; what
 * they must take for a result they keep.
 */
@inline
function kept(value: f32): v128 {
  return f32x4.splat(unit * value);
}

/**
 * Shapes n samples in place by one curve. Drive moves by `step` a sample from `from`; just above 1 what is driven comes
 * in by and by. `kind` and `moving` are constants where this is called.
 */
@inline
function run(kind: i32, moving: bool, at: usize, from: f32, step: f32, n: i32): void {
  const most = kept(4.97),
    least = kept(-4.97);
  const a = kept(378),
    b = kept(17325),
    c = kept(135135),
    d = kept(28),
    e = kept(3150),
    f = kept(62370);
  const whole = kept(1),
    under = kept(-1),
    bend = kept(0.35),
    soon = kept(1 / <f32>0.122),
    nothing = f32x4.splat(0);
  let drive = f32x4.add(f32x4.splat(from), f32x4.mul(f32x4.splat(step), f32x4(1, 2, 3, 4)));
  const steps = f32x4.splat(4 * step);
  let back = f32x4.div(whole, drive);
  let wet = f32x4.min(whole, f32x4.mul(f32x4.sub(drive, whole), soon));
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const plain = v128.load(at + i);
    const x = f32x4.mul(plain, drive);
    let y = x;
    if (kind < 2) {
      // A fraction for tanh, which reaches one where it is cut off.
      const near = f32x4.pmin(most, f32x4.pmax(least, x));
      const s = f32x4.mul(near, near);
      const top = f32x4.mul(near, madd(s, madd(s, f32x4.add(a, s), b), c));
      y = f32x4.div(top, madd(s, madd(s, madd(s, d, e), f), c));
      if (kind == 1) y = v128.bitselect(y, f32x4.div(x, nmadd(bend, x, whole)), f32x4.gt(x, nothing));
    } else if (kind == 2) {
      const s = f32x4.mul(x, x);
      y = f32x4.div(x, f32x4.sqrt(f32x4.sqrt(madd(s, s, whole))));
    } else y = f32x4.max(under, f32x4.min(whole, x));
    v128.store(at + i, madd(f32x4.sub(f32x4.mul(y, back), plain), wet, plain));
    if (moving) {
      drive = f32x4.add(drive, steps);
      back = f32x4.div(whole, drive);
      wet = f32x4.min(whole, f32x4.mul(f32x4.sub(drive, whole), soon));
    }
  }
}

function shapeMoving(at: usize, kind: i32, from: f32, step: f32, n: i32): void {
  if (kind == 0) run(0, true, at, from, step, n);
  else if (kind == 1) run(1, true, at, from, step, n);
  else if (kind == 2) run(2, true, at, from, step, n);
  else run(3, true, at, from, step, n);
}

function shapeSteady(at: usize, kind: i32, drive: f32, n: i32): void {
  if (kind == 0) run(0, false, at, drive, 0, n);
  else if (kind == 1) run(1, false, at, drive, 0, n);
  else if (kind == 2) run(2, false, at, drive, 0, n);
  else run(3, false, at, drive, 0, n);
}

/** Bytes of the table before its stages. */
const STAGES_AT: usize = 24;

@inline
function cell(table: usize, index: usize): i32 {
  return load<i32>(table + 4 * index);
}

@inline
function row(base: usize, table: usize, index: usize): usize {
  return base + 4 * <usize>cell(table, index);
}

/**
 * Lays the last figures of a row before its beginning; a few of them, for which a copy of the memory's own takes
 * longer.
 */
@inline
function keep(at: usize, n: i32, history: i32): void {
  const bytes: usize = 4 * <usize>history;
  const from = at + 4 * <usize>n - bytes,
    to = at - bytes;
  let i: usize = 0;
  for (; i + 16 <= bytes; i += 16) v128.store(to + i, v128.load(from + i));
  for (; i < bytes; i += 4) store<f32>(to + i, load<f32>(from + i));
}

/** Brings a channel's run up to the top, and shapes it there where `kind` is a curve of the kernel's. */
export function rise(base: usize, table: usize, count: i32, kind: i32, from: f32, step: f32): void {
  const top = row(base, table, 0);
  for (let s = 0; s < count; s += 1) {
    const stage = table + STAGES_AT + 24 * <usize>s;
    const half = cell(stage, 0),
      n = cell(stage, 5),
      input = row(base, stage, 2);
    up(input, s == count - 1 ? top : row(base, stage + 24, 2), 4 * <usize>cell(stage, 1), 2 * half, half - 1, n);
    keep(input, n, 2 * half);
  }
  if (kind < 0) return;
  if (step == 0) shapeSteady(top, kind, from, cell(table, 3));
  else shapeMoving(top, kind, from, step, cell(table, 3));
}

/** Brings a channel's run down again. */
export function fall(base: usize, table: usize, count: i32): void {
  const top = row(base, table, 0),
    result = row(base, table, 1);
  const filling = cell(table, 2);
  for (let s = count - 1; s >= 0; s -= 1) {
    const stage = table + STAGES_AT + 24 * <usize>s;
    const half = cell(stage, 0),
      n = cell(stage, 5),
      even = row(base, stage, 3),
      odd = row(base, stage, 4);
    split(s == count - 1 ? top - 4 * <usize>filling : result, even, odd, n);
    if (s == 0) downSteeply(even, odd, result, 4 * <usize>cell(table, 4), 4 * <usize>cell(table, 5), 2 * half, n);
    else down(even, odd, result, 4 * <usize>cell(stage, 1), 2 * half, half, n);
    keep(even, n, 2 * half);
    keep(odd, n, s == 0 ? 2 * half : half);
  }
  keep(top, cell(table, 3), filling);
}
