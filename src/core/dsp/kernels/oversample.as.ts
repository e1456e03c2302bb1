// AssemblyScript. Twice the rate and back by half-band filters, and shaping in between. The same work in TypeScript:
// dsp/oversampleScript.ts. All arrays are f32, addresses are bytes, counts are samples and multiples of sixteen.

// Sixteen samples at once share each tap.
let f0: v128 = f32x4.splat(0), f1: v128 = f32x4.splat(0), f2: v128 = f32x4.splat(0), f3: v128 = f32x4.splat(0);

@inline
function filter(at: usize, taps: usize, count: i32): void {
  let a = f32x4.splat(0), b = f32x4.splat(0), c = f32x4.splat(0), d = f32x4.splat(0);
  for (let k: usize = 0; k < <usize>count; k += 1) {
    const tap = v128.load32_splat(taps + 4 * k);
    const from = at - 4 * k;
    a = f32x4.add(a, f32x4.mul(tap, v128.load(from)));
    b = f32x4.add(b, f32x4.mul(tap, v128.load(from, 16)));
    c = f32x4.add(c, f32x4.mul(tap, v128.load(from, 32)));
    d = f32x4.add(d, f32x4.mul(tap, v128.load(from, 48)));
  }
  f0 = a;
  f1 = b;
  f2 = c;
  f3 = d;
}

@inline
function laced(to: usize, filtered: v128, plain: v128): void {
  const even = f32x4.mul(f32x4.splat(2), filtered);
  v128.store(to, v128.shuffle<f32>(even, plain, 0, 4, 1, 5));
  v128.store(to, v128.shuffle<f32>(even, plain, 2, 6, 3, 7), 16);
}

/** @param from first of n samples, with as many before it as there are taps  @param to 2 n samples  @param half what the plain ones are late, in samples */
export function up(from: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  for (let i: usize = 0; i < 4 * <usize>n; i += 64) {
    filter(from + i, taps, count);
    const plain = from + i - late, out = to + 2 * i;
    laced(out, f0, v128.load(plain));
    laced(out + 32, f1, v128.load(plain, 16));
    laced(out + 64, f2, v128.load(plain, 32));
    laced(out + 96, f3, v128.load(plain, 48));
  }
}

/** Takes 2 n samples apart into those at even and at odd places. */
export function split(from: usize, even: usize, odd: usize, n: i32): void {
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const a = v128.load(from + 2 * i), b = v128.load(from + 2 * i, 16);
    v128.store(even + i, v128.shuffle<f32>(a, b, 0, 2, 4, 6));
    v128.store(odd + i, v128.shuffle<f32>(a, b, 1, 3, 5, 7));
  }
}

/** @param even, odd first of n samples each, with as many before as there are taps  @param half what the odd ones are late, in samples */
export function down(even: usize, odd: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  const share = f32x4.splat(0.5);
  for (let i: usize = 0; i < 4 * <usize>n; i += 64) {
    filter(even + i, taps, count);
    const plain = odd + i - late;
    v128.store(to + i, f32x4.add(f0, f32x4.mul(share, v128.load(plain))));
    v128.store(to + i, f32x4.add(f1, f32x4.mul(share, v128.load(plain, 16))), 16);
    v128.store(to + i, f32x4.add(f2, f32x4.mul(share, v128.load(plain, 32))), 32);
    v128.store(to + i, f32x4.add(f3, f32x4.mul(share, v128.load(plain, 48))), 48);
  }
}

@inline
function tanhOf(x: v128): v128 {
  const s = f32x4.mul(x, x);
  const top = f32x4.mul(x, f32x4.add(f32x4.splat(135135), f32x4.mul(s, f32x4.add(f32x4.splat(17325), f32x4.mul(s, f32x4.add(f32x4.splat(378), s))))));
  const low = f32x4.add(f32x4.splat(135135), f32x4.mul(s, f32x4.add(f32x4.splat(62370), f32x4.mul(s, f32x4.add(f32x4.splat(3150), f32x4.mul(s, f32x4.splat(28)))))));
  const y = f32x4.div(top, low);
  const high = f32x4.gt(x, f32x4.splat(4.97)), deep = f32x4.lt(x, f32x4.splat(-4.97));
  return v128.bitselect(f32x4.splat(-1), v128.bitselect(f32x4.splat(1), y, high), deep);
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
export function shape(at: usize, kind: i32, from: f32, step: f32, n: i32): void {
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

/** The same at one drive: without two of the three divisions. */
function shapeSteady(at: usize, kind: i32, level: f32, n: i32): void {
  const drive = f32x4.splat(level), back = f32x4.splat(1 / level);
  const share = (level - 1) / <f32>0.122;
  const wet = f32x4.splat(share < 1 ? share : 1);
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const x = v128.load(at + i);
    const y = f32x4.mul(shaped(f32x4.mul(x, drive), kind), back);
    v128.store(at + i, f32x4.add(x, f32x4.mul(f32x4.sub(y, x), wet)));
  }
}
