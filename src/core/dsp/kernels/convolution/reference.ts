import type { ConvolutionWork } from './layout';

/**
 * The parts of a partitioned convolution in TypeScript, on `cells`, with the addresses in bytes: the reference of
 * kernels/convolution/kernel.as.ts, and what runs where that cannot.
 */
export function convolutionReference(cells: Float32Array): ConvolutionWork {
  return {
    passes: (from, until, count, size, re, im, otherRe, otherIm, turns) => {
      for (let index = from; index < until; index += 1) {
        if ((index ^ count) & 1) pass(cells, index, size, otherRe >> 2, otherIm >> 2, re >> 2, im >> 2, turns >> 2);
        else pass(cells, index, size, re >> 2, im >> 2, otherRe >> 2, otherIm >> 2, turns >> 2);
      }
    },
    multiply: (from, until, sums, ahead, past, impulse, count, newest) => {
      for (const side of SIDES)
        multiply(
          cells,
          from,
          until,
          (sums >> 2) + side,
          (ahead >> 2) + side,
          (past >> 2) + side,
          (impulse >> 2) + side,
          count,
          newest,
        );
    },
    complete: (from, until, sums, ahead, past, impulse, count, newest) => {
      for (const side of SIDES)
        complete(
          cells,
          from,
          until,
          (sums >> 2) + side,
          (ahead >> 2) + side,
          (past >> 2) + side,
          (impulse >> 2) + side,
          count,
          newest,
        );
    },
    copy: (to, from, figures) => void cells.copyWithin(to >> 2, from >> 2, (from >> 2) + figures),
    enter: (left, right, from, out) => {
      cells.copyWithin(left >> 2, from >> 2, (from >> 2) + 64);
      cells.copyWithin(right >> 2, (from >> 2) + 64, (from >> 2) + 128);
      cells.fill(0, out >> 2, (out >> 2) + 128);
    },
    addStep: (to, from) => {
      for (let i = 0; i < 64; i += 1) cells[(to >> 2) + i] = cells[(to >> 2) + i]! + cells[(from >> 2) + i]!;
    },
    part: (size, re, im, to, count) => part(cells, size, re >> 2, im >> 2, to >> 2, count),
    join: (size, from, re, im, scale) => join(cells, size, from >> 2, re >> 2, im >> 2, scale),
  };
}

function pass(
  cells: Float32Array,
  index: number,
  size: number,
  fromRe: number,
  fromIm: number,
  toRe: number,
  toIm: number,
  turns: number,
): void {
  const length = size >> (2 * index);
  const stride = 1 << (2 * index);
  if (length >= 4) fourPass(cells, length >> 2, stride, size >> 2, fromRe, fromIm, toRe, toIm, turns);
  else twoPass(cells, stride, fromRe, fromIm, toRe, toIm);
}

function twoPass(cells: Float32Array, half: number, fromRe: number, fromIm: number, toRe: number, toIm: number): void {
  for (let q = 0; q < half; q += 1) {
    const ar = cells[fromRe + q]!,
      ai = cells[fromIm + q]!,
      br = cells[fromRe + half + q]!,
      bi = cells[fromIm + half + q]!;
    cells[toRe + q] = ar + br;
    cells[toIm + q] = ai + bi;
    cells[toRe + half + q] = ar - br;
    cells[toIm + half + q] = ai - bi;
  }
}

function fourPass(
  cells: Float32Array,
  m: number,
  stride: number,
  quarter: number,
  re: number,
  im: number,
  toRe: number,
  toIm: number,
  turns: number,
): void {
  const block = m * stride;
  for (let p = 0; p < m; p += 1) {
    const angle = turns + p * stride;
    const w1r = cells[angle]!,
      w1i = cells[angle + quarter]!,
      w2r = cells[angle + 2 * quarter]!,
      w2i = cells[angle + 3 * quarter]!;
    const w3r = cells[angle + 4 * quarter]!,
      w3i = cells[angle + 5 * quarter]!;
    for (let q = 0; q < stride; q += 1) {
      const at = p * stride + q;
      const ar = cells[re + at]!,
        ai = cells[im + at]!,
        br = cells[re + block + at]!,
        bi = cells[im + block + at]!;
      const cr = cells[re + 2 * block + at]!,
        ci = cells[im + 2 * block + at]!,
        dr = cells[re + 3 * block + at]!,
        di = cells[im + 3 * block + at]!;
      const sr = ar + cr,
        si = ai + ci,
        tr = ar - cr,
        ti = ai - ci,
        ur = br + dr,
        ui = bi + di,
        vr = bi - di,
        vi = dr - br;
      const x1r = tr + vr,
        x1i = ti + vi,
        x2r = sr - ur,
        x2i = si - ui,
        x3r = tr - vr,
        x3i = ti - vi;
      const to = 4 * p * stride + q;
      cells[toRe + to] = sr + ur;
      cells[toIm + to] = si + ui;
      cells[toRe + to + stride] = x1r * w1r - x1i * w1i;
      cells[toIm + to + stride] = x1r * w1i + x1i * w1r;
      cells[toRe + to + 2 * stride] = x2r * w2r - x2i * w2i;
      cells[toIm + to + 2 * stride] = x2r * w2i + x2i * w2r;
      cells[toRe + to + 3 * stride] = x3r * w3r - x3i * w3i;
      cells[toIm + to + 3 * stride] = x3r * w3i + x3i * w3r;
    }
  }
}

/**
 * Bins that are together: first their left re, then left im, right re, right im. Those of one spectrum are before those
 * of the next.
 */
const FOUR = 4;
const BOTH_SIDES = 16;
/** Where the sides begin in what is together. */
const SIDES = [0, 2 * FOUR] as const;
const placeOf = (bin: number, count: number): number => (bin >> 2) * BOTH_SIDES * count + (bin & 3);

/**
 * Sums of `impulse` from partition `first` on times the input from slot `slot` on, for one bin; bin 0 holds two real
 * figures, at nought and at half the rate.
 */
function sum(
  cells: Float32Array,
  bin: number,
  to: number,
  past: number,
  impulse: number,
  count: number,
  slot: number,
  first: number,
): void {
  const place = placeOf(bin, count);
  let re = 0;
  let im = 0;
  for (let p = first; p < count; p += 1) {
    const x = past + place + slot * BOTH_SIDES;
    const h = impulse + place + p * BOTH_SIDES;
    const xr = cells[x]!,
      xi = cells[x + FOUR]!,
      hr = cells[h]!,
      hi = cells[h + FOUR]!;
    re += bin === 0 ? xr * hr : xr * hr - xi * hi;
    im += bin === 0 ? xi * hi : xr * hi + xi * hr;
    slot = slot + 1 === count ? 0 : slot + 1;
  }
  cells[to + placeOf(bin, 1)] = re;
  cells[to + placeOf(bin, 1) + FOUR] = im;
}

function multiply(
  cells: Float32Array,
  from: number,
  until: number,
  sums: number,
  ahead: number,
  past: number,
  impulse: number,
  count: number,
  newest: number,
): void {
  for (let bin = from; bin < until; bin += 1) {
    sum(cells, bin, sums, past, impulse, count, newest, 0);
    sum(cells, bin, ahead, past, impulse, count, newest, 1);
  }
}

function complete(
  cells: Float32Array,
  from: number,
  until: number,
  sums: number,
  ahead: number,
  past: number,
  impulse: number,
  count: number,
  newest: number,
): void {
  for (let bin = from; bin < until; bin += 1) {
    const x = past + placeOf(bin, count) + newest * BOTH_SIDES,
      h = impulse + placeOf(bin, count),
      at = placeOf(bin, 1);
    const xr = cells[x]!,
      xi = cells[x + FOUR]!,
      hr = cells[h]!,
      hi = cells[h + FOUR]!;
    cells[sums + at] = cells[ahead + at]! + (bin === 0 ? xr * hr : xr * hr - xi * hi);
    cells[sums + at + FOUR] = cells[ahead + at + FOUR]! + (bin === 0 ? xi * hi : xr * hi + xi * hr);
  }
}

function part(cells: Float32Array, size: number, re: number, im: number, to: number, count: number): void {
  const set = (at: number, lr: number, li: number, rr: number, ri: number): void => {
    cells[at] = lr;
    cells[at + FOUR] = li;
    cells[at + 2 * FOUR] = rr;
    cells[at + 3 * FOUR] = ri;
  };
  set(to, cells[re]!, cells[re + size]!, cells[im]!, cells[im + size]!);
  for (let k = 1; k < size; k += 1) {
    const ar = cells[re + k]!,
      ai = cells[im + k]!,
      br = cells[re + 2 * size - k]!,
      bi = cells[im + 2 * size - k]!;
    set(to + placeOf(k, count), 0.5 * (ar + br), 0.5 * (ai - bi), 0.5 * (ai + bi), 0.5 * (br - ar));
  }
}

function join(cells: Float32Array, size: number, from: number, re: number, im: number, scale: number): void {
  cells[im] = scale * cells[from]!;
  cells[im + size] = scale * cells[from + FOUR]!;
  cells[re] = scale * cells[from + 2 * FOUR]!;
  cells[re + size] = scale * cells[from + 3 * FOUR]!;
  for (let k = 1; k < size; k += 1) {
    const at = from + placeOf(k, 1);
    const lr = cells[at]!,
      li = cells[at + FOUR]!,
      rr = cells[at + 2 * FOUR]!,
      ri = cells[at + 3 * FOUR]!;
    cells[im + k] = scale * (lr - ri);
    cells[re + k] = scale * (li + rr);
    cells[im + 2 * size - k] = scale * (lr + ri);
    cells[re + 2 * size - k] = scale * (rr - li);
  }
}
