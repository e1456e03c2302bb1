// AssemblyScript. Twice the rate and back by half-band filters, and shaping in between. The same work in TypeScript:
// dsp/oversampleScript.ts. All arrays are f32, addresses are bytes, counts are samples and multiples of sixteen.

import { madd } from './madd.as';

@inline
function laced(to: usize, filtered: v128, plain: v128): void {
  const even = f32x4.mul(f32x4.splat(2), filtered);
  v128.store(to, v128.shuffle<f32>(even, plain, 0, 4, 1, 5));
  v128.store(to, v128.shuffle<f32>(even, plain, 2, 6, 3, 7), 16);
}

/** Sixteen samples at once share each tap, and the taps, which are the same from both ends, each multiplication. @param to where they go */
@inline
function filter(at: usize, taps: usize, count: i32, to: usize): void {
  let a = f32x4.splat(0), b = f32x4.splat(0), c = f32x4.splat(0), d = f32x4.splat(0);
  let late = at;
  let early = at - 4 * (<usize>count - 1);
  for (let k = taps, end = taps + 2 * <usize>count; k < end; k += 4) {
    const tap = v128.load32_splat(k);
    a = madd(tap, f32x4.add(v128.load(early), v128.load(late)), a);
    b = madd(tap, f32x4.add(v128.load(early, 16), v128.load(late, 16)), b);
    c = madd(tap, f32x4.add(v128.load(early, 32), v128.load(late, 32)), c);
    d = madd(tap, f32x4.add(v128.load(early, 48), v128.load(late, 48)), d);
    early += 4;
    late -= 4;
  }
  v128.store(to, a);
  v128.store(to, b, 16);
  v128.store(to, c, 32);
  v128.store(to, d, 48);
}

/** @param from first of n samples, with as many before it as there are taps  @param to 2 n samples  @param half what the plain ones are late, in samples */
function up(from: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  for (let i: usize = 0; i < 4 * <usize>n; i += 64) {
    const plain = from + i - late, out = to + 2 * i;
    // The upper half of their place holds them until they are laced.
    const held = out + 64;
    filter(from + i, taps, count, held);
    const a = v128.load(held), b = v128.load(held, 16), c = v128.load(held, 32), d = v128.load(held, 48);
    laced(out, a, v128.load(plain));
    laced(out + 32, b, v128.load(plain, 16));
    laced(out + 64, c, v128.load(plain, 32));
    laced(out + 96, d, v128.load(plain, 48));
  }
}

/** Takes 2 n samples apart into those at even and at odd places. */
function split(from: usize, even: usize, odd: usize, n: i32): void {
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const a = v128.load(from + 2 * i), b = v128.load(from + 2 * i, 16);
    v128.store(even + i, v128.shuffle<f32>(a, b, 0, 2, 4, 6));
    v128.store(odd + i, v128.shuffle<f32>(a, b, 1, 3, 5, 7));
  }
}

/** @param even, odd first of n samples each, with as many before as there are taps  @param half what the odd ones are late, in samples */
function down(even: usize, odd: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  const share = f32x4.splat(0.5);
  for (let i: usize = 0; i < 4 * <usize>n; i += 64) {
    filter(even + i, taps, count, to + i);
    for (let k = i; k < i + 64; k += 16) v128.store(to + k, madd(share, v128.load(odd + k - late), v128.load(to + k)));
  }
}

@inline
function tanhOf(driven: v128): v128 {
  // The fraction reaches one where it is cut off.
  const x = f32x4.pmin(f32x4.splat(4.97), f32x4.pmax(f32x4.splat(-4.97), driven));
  const s = f32x4.mul(x, x);
  const top = f32x4.mul(x, madd(s, madd(s, f32x4.add(f32x4.splat(378), s), f32x4.splat(17325)), f32x4.splat(135135)));
  const low = madd(s, madd(s, madd(s, f32x4.splat(28), f32x4.splat(3150)), f32x4.splat(62370)), f32x4.splat(135135));
  return f32x4.div(top, low);
}

@inline
function shaped(x: v128, kind: i32): v128 {
  if (kind == 0) return tanhOf(x);
  if (kind == 1) {
    const negative = f32x4.div(x, f32x4.sub(f32x4.splat(1), f32x4.mul(f32x4.splat(0.35), x)));
    return v128.bitselect(tanhOf(x), negative, f32x4.gt(x, f32x4.splat(0)));
  }
  if (kind == 2) {
    const s = f32x4.mul(x, x);
    return f32x4.div(x, f32x4.sqrt(f32x4.sqrt(f32x4.add(f32x4.splat(1), f32x4.mul(s, s)))));
  }
  return f32x4.max(f32x4.splat(-1), f32x4.min(f32x4.splat(1), x));
}

/** Shapes n samples in place; the drive moves by `step` a sample from `from`. */
function shape(at: usize, kind: i32, from: f32, step: f32, n: i32): void {
  if (step == 0) {
    shapeSteady(at, kind, from, n);
    return;
  }
  let drive = f32x4.add(f32x4.splat(from), f32x4.mul(f32x4.splat(step), f32x4(1, 2, 3, 4)));
  const steps = f32x4.splat(4 * step);
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const x = v128.load(at + i);
    const y = f32x4.div(shaped(f32x4.mul(x, drive), kind), drive);
    const wet = f32x4.min(f32x4.splat(1), f32x4.div(f32x4.sub(drive, f32x4.splat(1)), f32x4.splat(0.122)));
    v128.store(at + i, f32x4.add(x, f32x4.mul(f32x4.sub(y, x), wet)));
    drive = f32x4.add(drive, steps);
  }
}

/** The same at one drive: without two of the three divisions, and without mixing where it is wholly driven. */
function shapeSteady(at: usize, kind: i32, level: f32, n: i32): void {
  const drive = f32x4.splat(level), back = f32x4.splat(1 / level);
  const share = (level - 1) / <f32>0.122;
  if (share >= 1) {
    for (let i: usize = 0; i < 4 * <usize>n; i += 16) v128.store(at + i, f32x4.mul(shaped(f32x4.mul(v128.load(at + i), drive), kind), back));
    return;
  }
  const wet = f32x4.splat(share);
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const x = v128.load(at + i);
    const y = f32x4.mul(shaped(f32x4.mul(x, drive), kind), back);
    v128.store(at + i, f32x4.add(x, f32x4.mul(f32x4.sub(y, x), wet)));
  }
}

@inline
function cell(table: usize, index: usize): i32 {
  return load<i32>(table + 4 * index);
}

@inline
function row(base: usize, table: usize, index: usize): usize {
  return base + 4 * <usize>cell(table, index);
}

/** Lays the last figures of a row before its beginning; a few of them, for which a copy of the memory's own takes longer. */
@inline
function keep(at: usize, n: i32, history: i32): void {
  const bytes: usize = 4 * <usize>history;
  const from = at + 4 * <usize>n - bytes, to = at - bytes;
  let i: usize = 0;
  for (; i + 16 <= bytes; i += 16) v128.store(to + i, v128.load(from + i));
  for (; i < bytes; i += 4) store<f32>(to + i, load<f32>(from + i));
}

/** Brings a channel's run up to the top, and shapes it there where `kind` is a curve of the kernel's. */
export function rise(base: usize, table: usize, count: i32, kind: i32, from: f32, step: f32): void {
  const top = row(base, table, 0);
  for (let s = 0; s < count; s += 1) {
    const stage = table + 16 + 24 * <usize>s;
    const half = cell(stage, 0), n = cell(stage, 5), input = row(base, stage, 2);
    up(input, s == count - 1 ? top : row(base, stage + 24, 2), 4 * <usize>cell(stage, 1), 2 * half, half - 1, n);
    keep(input, n, 2 * half);
  }
  if (kind >= 0) shape(top, kind, from, step, cell(table, 3));
}

/** Brings a channel's run down again. */
export function fall(base: usize, table: usize, count: i32): void {
  const top = row(base, table, 0), result = row(base, table, 1);
  const filling = cell(table, 2);
  for (let s = count - 1; s >= 0; s -= 1) {
    const stage = table + 16 + 24 * <usize>s;
    const half = cell(stage, 0), n = cell(stage, 5), even = row(base, stage, 3), odd = row(base, stage, 4);
    split(s == count - 1 ? top - 4 * <usize>filling : result, even, odd, n);
    down(even, odd, result, 4 * <usize>cell(stage, 1), 2 * half, half, n);
    keep(even, n, 2 * half);
    keep(odd, n, half);
  }
  keep(top, cell(table, 3), filling);
}
