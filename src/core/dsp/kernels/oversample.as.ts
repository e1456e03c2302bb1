// AssemblyScript. Twice the rate and back by half-band filters, and shaping in between. The same work in TypeScript:
// dsp/oversampleScript.ts. All arrays are f32, addresses are bytes, counts are samples and multiples of four.

@inline
function filtered(at: usize, taps: usize, count: i32): v128 {
  let a = f32x4.splat(0), b = f32x4.splat(0);
  for (let k: usize = 0; k < <usize>count; k += 2) {
    a = f32x4.add(a, f32x4.mul(v128.load32_splat(taps + 4 * k), v128.load(at - 4 * k)));
    b = f32x4.add(b, f32x4.mul(v128.load32_splat(taps + 4 * k, 4), v128.load(at - 4 * k - 4)));
  }
  return f32x4.add(a, b);
}

/** @param from first of n samples, with as many before it as there are taps  @param to 2 n samples  @param half what the plain ones are late, in samples */
export function up(from: usize, to: usize, taps: usize, count: i32, half: i32, n: i32): void {
  const late: usize = 4 * <usize>half;
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const even = f32x4.mul(f32x4.splat(2), filtered(from + i, taps, count));
    const odd = v128.load(from + i - late);
    v128.store(to + 2 * i, v128.shuffle<f32>(even, odd, 0, 4, 1, 5));
    v128.store(to + 2 * i, v128.shuffle<f32>(even, odd, 2, 6, 3, 7), 16);
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
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    v128.store(to + i, f32x4.add(filtered(even + i, taps, count), f32x4.mul(f32x4.splat(0.5), v128.load(odd + i - late))));
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
