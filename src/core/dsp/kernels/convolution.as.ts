// AssemblyScript. The parts of a partitioned convolution: Fourier transform, multiply-add of spectra, and taking two real
// sides in and out of one complex transform. The same work in TypeScript: dsp/convolutionScript.ts. All arrays are f32; re and
// im lie apart. Addresses are bytes.

/**
 * One pass of a complex transform of `size` (a power of two from 16 on), from re/im into re/im; `work` has room for both.
 * All passes in turn make the transform: passes of four, and a last one of two where the size asks for it.
 * `turns` holds six tables of size/4: cos and -sin of one, two and three times each angle.
 * Source: T. G. Stockham, "High-speed convolution and correlation" (1966): self-sorting.
 */
export function pass(index: i32, size: i32, re: usize, im: usize, work: usize, turns: usize): void {
  const bytes = <usize>size << 2;
  const quarter = bytes >> 2;
  const odd = (index & 1) === 1;
  const fromRe = odd ? work : re, fromIm = odd ? work + bytes : im;
  const toRe = odd ? re : work, toIm = odd ? im : work + bytes;
  const length = size >> (2 * index);
  const stride = <usize>1 << (2 * index);
  if (index === 0) firstPass(quarter, fromRe, fromIm, toRe, toIm, turns);
  else if (length >= 4) fourPass(length, stride, quarter, fromRe, fromIm, toRe, toIm, turns);
  else twoPass(stride << 2, fromRe, fromIm, toRe, toIm);
  if (length <= 4 && !odd) {
    memory.copy(re, toRe, bytes);
    memory.copy(im, toIm, bytes);
  }
}

function twoPass(half: usize, fromRe: usize, fromIm: usize, toRe: usize, toIm: usize): void {
  for (let q: usize = 0; q < half; q += 16) {
    const ar = v128.load(fromRe + q), ai = v128.load(fromIm + q);
    const br = v128.load(fromRe + half + q), bi = v128.load(fromIm + half + q);
    v128.store(toRe + q, f32x4.add(ar, br));
    v128.store(toIm + q, f32x4.add(ai, bi));
    v128.store(toRe + half + q, f32x4.sub(ar, br));
    v128.store(toIm + half + q, f32x4.sub(ai, bi));
  }
}

@inline
function storeFour(at: usize, a: v128, b: v128, c: v128, d: v128): void {
  const t0 = v128.shuffle<i32>(a, b, 0, 4, 1, 5), t1 = v128.shuffle<i32>(c, d, 0, 4, 1, 5);
  const t2 = v128.shuffle<i32>(a, b, 2, 6, 3, 7), t3 = v128.shuffle<i32>(c, d, 2, 6, 3, 7);
  v128.store(at, v128.shuffle<i64>(t0, t1, 0, 2));
  v128.store(at, v128.shuffle<i64>(t0, t1, 1, 3), 16);
  v128.store(at, v128.shuffle<i64>(t2, t3, 0, 2), 32);
  v128.store(at, v128.shuffle<i64>(t2, t3, 1, 3), 48);
}

/** Stride 1: four neighbouring angles at once, turned round when they are stored. */
function firstPass(quarter: usize, re: usize, im: usize, toRe: usize, toIm: usize, turns: usize): void {
  for (let p: usize = 0; p < quarter; p += 16) {
    const ar = v128.load(re + p), ai = v128.load(im + p);
    const br = v128.load(re + quarter + p), bi = v128.load(im + quarter + p);
    const cr = v128.load(re + 2 * quarter + p), ci = v128.load(im + 2 * quarter + p);
    const dr = v128.load(re + 3 * quarter + p), di = v128.load(im + 3 * quarter + p);
    const sr = f32x4.add(ar, cr), si = f32x4.add(ai, ci);
    const tr = f32x4.sub(ar, cr), ti = f32x4.sub(ai, ci);
    const ur = f32x4.add(br, dr), ui = f32x4.add(bi, di);
    // (b - d) times -i
    const vr = f32x4.sub(bi, di), vi = f32x4.sub(dr, br);
    const w1r = v128.load(turns + p), w1i = v128.load(turns + quarter + p);
    const w2r = v128.load(turns + 2 * quarter + p), w2i = v128.load(turns + 3 * quarter + p);
    const w3r = v128.load(turns + 4 * quarter + p), w3i = v128.load(turns + 5 * quarter + p);
    const x1r = f32x4.add(tr, vr), x1i = f32x4.add(ti, vi);
    const x2r = f32x4.sub(sr, ur), x2i = f32x4.sub(si, ui);
    const x3r = f32x4.sub(tr, vr), x3i = f32x4.sub(ti, vi);
    storeFour(toRe + 4 * p, f32x4.add(sr, ur), f32x4.sub(f32x4.mul(x1r, w1r), f32x4.mul(x1i, w1i)), f32x4.sub(f32x4.mul(x2r, w2r), f32x4.mul(x2i, w2i)), f32x4.sub(f32x4.mul(x3r, w3r), f32x4.mul(x3i, w3i)));
    storeFour(toIm + 4 * p, f32x4.add(si, ui), f32x4.add(f32x4.mul(x1r, w1i), f32x4.mul(x1i, w1r)), f32x4.add(f32x4.mul(x2r, w2i), f32x4.mul(x2i, w2r)), f32x4.add(f32x4.mul(x3r, w3i), f32x4.mul(x3i, w3r)));
  }
}

/** Four neighbouring columns at once, which share their angle. */
function fourPass(length: i32, stride: usize, quarter: usize, re: usize, im: usize, toRe: usize, toIm: usize, turns: usize): void {
  const m = <usize>(length >> 2);
  const row = stride << 2;
  const block = m * row;
  for (let p: usize = 0; p < m; p += 1) {
    const angle = turns + p * row;
    const w1r = v128.load32_splat(angle), w1i = v128.load32_splat(angle + quarter);
    const w2r = v128.load32_splat(angle + 2 * quarter), w2i = v128.load32_splat(angle + 3 * quarter);
    const w3r = v128.load32_splat(angle + 4 * quarter), w3i = v128.load32_splat(angle + 5 * quarter);
    for (let q: usize = 0; q < row; q += 16) {
      const at = p * row + q;
      const ar = v128.load(re + at), ai = v128.load(im + at);
      const br = v128.load(re + block + at), bi = v128.load(im + block + at);
      const cr = v128.load(re + 2 * block + at), ci = v128.load(im + 2 * block + at);
      const dr = v128.load(re + 3 * block + at), di = v128.load(im + 3 * block + at);
      const sr = f32x4.add(ar, cr), si = f32x4.add(ai, ci);
      const tr = f32x4.sub(ar, cr), ti = f32x4.sub(ai, ci);
      const ur = f32x4.add(br, dr), ui = f32x4.add(bi, di);
      const vr = f32x4.sub(bi, di), vi = f32x4.sub(dr, br);
      const x1r = f32x4.add(tr, vr), x1i = f32x4.add(ti, vi);
      const x2r = f32x4.sub(sr, ur), x2i = f32x4.sub(si, ui);
      const x3r = f32x4.sub(tr, vr), x3i = f32x4.sub(ti, vi);
      const to = 4 * p * row + q;
      v128.store(toRe + to, f32x4.add(sr, ur));
      v128.store(toIm + to, f32x4.add(si, ui));
      v128.store(toRe + to + row, f32x4.sub(f32x4.mul(x1r, w1r), f32x4.mul(x1i, w1i)));
      v128.store(toIm + to + row, f32x4.add(f32x4.mul(x1r, w1i), f32x4.mul(x1i, w1r)));
      v128.store(toRe + to + 2 * row, f32x4.sub(f32x4.mul(x2r, w2r), f32x4.mul(x2i, w2i)));
      v128.store(toIm + to + 2 * row, f32x4.add(f32x4.mul(x2r, w2i), f32x4.mul(x2i, w2r)));
      v128.store(toRe + to + 3 * row, f32x4.sub(f32x4.mul(x3r, w3r), f32x4.mul(x3i, w3i)));
      v128.store(toIm + to + 3 * row, f32x4.add(f32x4.mul(x3r, w3i), f32x4.mul(x3i, w3r)));
    }
  }
}

/**
 * acc += x * h over the bins from `from` until `until`, multiples of four; each spectrum is `half` of re, then `half` of im, with
 * two real figures in bin 0.
 */
export function multiplyAdd(half: i32, from: i32, until: i32, acc: usize, x: usize, h: usize): void {
  const bytes = <usize>half << 2;
  const lowest = load<f32>(acc) + load<f32>(x) * load<f32>(h);
  const highest = load<f32>(acc + bytes) + load<f32>(x + bytes) * load<f32>(h + bytes);
  const end = <usize>until << 2;
  for (let i = <usize>from << 2; i < end; i += 16) {
    const xr = v128.load(x + i), xi = v128.load(x + bytes + i);
    const hr = v128.load(h + i), hi = v128.load(h + bytes + i);
    v128.store(acc + i, f32x4.add(v128.load(acc + i), f32x4.sub(f32x4.mul(xr, hr), f32x4.mul(xi, hi))));
    v128.store(acc + bytes + i, f32x4.add(v128.load(acc + bytes + i), f32x4.add(f32x4.mul(xr, hi), f32x4.mul(xi, hr))));
  }
  if (from > 0) return;
  store<f32>(acc, lowest);
  store<f32>(acc + bytes, highest);
}

/** The same for two pairs at once, which saves half of the way of the sums through memory. */
export function multiplyAddTwo(half: i32, from: i32, until: i32, acc: usize, x: usize, h: usize, y: usize, k: usize): void {
  const bytes = <usize>half << 2;
  const lowest = load<f32>(acc) + load<f32>(x) * load<f32>(h) + load<f32>(y) * load<f32>(k);
  const highest = load<f32>(acc + bytes) + load<f32>(x + bytes) * load<f32>(h + bytes) + load<f32>(y + bytes) * load<f32>(k + bytes);
  const end = <usize>until << 2;
  for (let i = <usize>from << 2; i < end; i += 16) {
    const xr = v128.load(x + i), xi = v128.load(x + bytes + i);
    const hr = v128.load(h + i), hi = v128.load(h + bytes + i);
    const yr = v128.load(y + i), yi = v128.load(y + bytes + i);
    const kr = v128.load(k + i), ki = v128.load(k + bytes + i);
    const real = f32x4.add(f32x4.sub(f32x4.mul(xr, hr), f32x4.mul(xi, hi)), f32x4.sub(f32x4.mul(yr, kr), f32x4.mul(yi, ki)));
    const imaginary = f32x4.add(f32x4.add(f32x4.mul(xr, hi), f32x4.mul(xi, hr)), f32x4.add(f32x4.mul(yr, ki), f32x4.mul(yi, kr)));
    v128.store(acc + i, f32x4.add(v128.load(acc + i), real));
    v128.store(acc + bytes + i, f32x4.add(v128.load(acc + bytes + i), imaginary));
  }
  if (from > 0) return;
  store<f32>(acc, lowest);
  store<f32>(acc + bytes, highest);
}

@inline
function turned(v: v128): v128 {
  return v128.shuffle<i32>(v, v, 3, 2, 1, 0);
}

/**
 * Takes the spectra of two real sides out of the transform of left + i right.
 * Bin 0 of each holds its real value at 0 in re and that at half the rate in im. The first turn of the loop reaches one figure
 * past `re` and `im`, into memory that follows them, and leaves in bin 0 what is put right afterwards. @param half bins kept of each side
 */
export function part(half: i32, re: usize, im: usize, left: usize, right: usize): void {
  const bytes = <usize>half << 2;
  const scale = f32x4.splat(<f32>0.5);
  for (let a: usize = 0; a < bytes; a += 16) {
    const b = 2 * bytes - a - 12;
    const ar = v128.load(re + a), ai = v128.load(im + a), br = turned(v128.load(re + b)), bi = turned(v128.load(im + b));
    v128.store(left + a, f32x4.mul(scale, f32x4.add(ar, br)));
    v128.store(left + bytes + a, f32x4.mul(scale, f32x4.sub(ai, bi)));
    v128.store(right + a, f32x4.mul(scale, f32x4.add(ai, bi)));
    v128.store(right + bytes + a, f32x4.mul(scale, f32x4.sub(br, ar)));
  }
  store<f32>(left, load<f32>(re));
  store<f32>(left + bytes, load<f32>(re + bytes));
  store<f32>(right, load<f32>(im));
  store<f32>(right + bytes, load<f32>(im + bytes));
}

/**
 * The way back: left + i right, scaled, with re and im changed over so that a forward transform gives the inverse. As `part`, it
 * touches one figure past `re` and `im`: those must lie in this order with `work` behind them.
 */
export function join(half: i32, left: usize, right: usize, re: usize, im: usize, scale: f32): void {
  const bytes = <usize>half << 2;
  const scales = f32x4.splat(scale);
  for (let a: usize = 0; a < bytes; a += 16) {
    const b = 2 * bytes - a - 12;
    const lr = f32x4.mul(scales, v128.load(left + a)), li = f32x4.mul(scales, v128.load(left + bytes + a));
    const rr = f32x4.mul(scales, v128.load(right + a)), ri = f32x4.mul(scales, v128.load(right + bytes + a));
    v128.store(re + b, turned(f32x4.sub(rr, li)));
    v128.store(im + b, turned(f32x4.add(lr, ri)));
    v128.store(re + a, f32x4.add(li, rr));
    v128.store(im + a, f32x4.sub(lr, ri));
  }
  store<f32>(im, scale * load<f32>(left));
  store<f32>(re, scale * load<f32>(right));
  store<f32>(im + bytes, scale * load<f32>(left + bytes));
  store<f32>(re + bytes, scale * load<f32>(right + bytes));
}
