import type { ConvolutionWork } from './convolutionWork';

/** The parts of a partitioned convolution in TypeScript, on `cells`, with the addresses in bytes: the reference of kernels/convolution.as.ts, and what runs where that cannot. */
export function scriptedWork(cells: Float32Array): ConvolutionWork {
  return {
    pass: (index, size, re, im, work, turns) => pass(cells, index, size, re >> 2, im >> 2, work >> 2, turns >> 2),
    multiplyAdd: (half, from, until, acc, x, h) => multiplyAdd(cells, half, from, until, acc >> 2, x >> 2, h >> 2),
    multiplyAddTwo: (half, from, until, acc, x, h, y, k) => {
      multiplyAdd(cells, half, from, until, acc >> 2, x >> 2, h >> 2);
      multiplyAdd(cells, half, from, until, acc >> 2, y >> 2, k >> 2);
    },
    part: (half, re, im, left, right) => part(cells, half, re >> 2, im >> 2, left >> 2, right >> 2),
    join: (half, left, right, re, im, scale) => join(cells, half, left >> 2, right >> 2, re >> 2, im >> 2, scale),
  };
}

/** One pass of the transform; every other one goes from `work` back to re and im. */
function pass(cells: Float32Array, index: number, size: number, re: number, im: number, work: number, turns: number): void {
  const odd = (index & 1) === 1;
  const fromRe = odd ? work : re, fromIm = odd ? work + size : im, toRe = odd ? re : work, toIm = odd ? im : work + size;
  const length = size >> (2 * index);
  const stride = 1 << (2 * index);
  if (length >= 4) fourPass(cells, length >> 2, stride, size >> 2, fromRe, fromIm, toRe, toIm, turns);
  else twoPass(cells, stride, fromRe, fromIm, toRe, toIm);
  if (length <= 4 && !odd) {
    cells.copyWithin(re, toRe, toRe + size);
    cells.copyWithin(im, toIm, toIm + size);
  }
}

function twoPass(cells: Float32Array, half: number, fromRe: number, fromIm: number, toRe: number, toIm: number): void {
  for (let q = 0; q < half; q += 1) {
    const ar = cells[fromRe + q]!, ai = cells[fromIm + q]!, br = cells[fromRe + half + q]!, bi = cells[fromIm + half + q]!;
    cells[toRe + q] = ar + br;
    cells[toIm + q] = ai + bi;
    cells[toRe + half + q] = ar - br;
    cells[toIm + half + q] = ai - bi;
  }
}

function fourPass(cells: Float32Array, m: number, stride: number, quarter: number, re: number, im: number, toRe: number, toIm: number, turns: number): void {
  const block = m * stride;
  for (let p = 0; p < m; p += 1) {
    const angle = turns + p * stride;
    const w1r = cells[angle]!, w1i = cells[angle + quarter]!, w2r = cells[angle + 2 * quarter]!, w2i = cells[angle + 3 * quarter]!;
    const w3r = cells[angle + 4 * quarter]!, w3i = cells[angle + 5 * quarter]!;
    for (let q = 0; q < stride; q += 1) {
      const at = p * stride + q;
      const ar = cells[re + at]!, ai = cells[im + at]!, br = cells[re + block + at]!, bi = cells[im + block + at]!;
      const cr = cells[re + 2 * block + at]!, ci = cells[im + 2 * block + at]!, dr = cells[re + 3 * block + at]!, di = cells[im + 3 * block + at]!;
      const sr = ar + cr, si = ai + ci, tr = ar - cr, ti = ai - ci, ur = br + dr, ui = bi + di, vr = bi - di, vi = dr - br;
      const x1r = tr + vr, x1i = ti + vi, x2r = sr - ur, x2i = si - ui, x3r = tr - vr, x3i = ti - vi;
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

function multiplyAdd(cells: Float32Array, half: number, from: number, until: number, acc: number, x: number, h: number): void {
  const lowest = cells[acc]! + cells[x]! * cells[h]!;
  const highest = cells[acc + half]! + cells[x + half]! * cells[h + half]!;
  for (let i = from; i < until; i += 1) {
    const xr = cells[x + i]!, xi = cells[x + half + i]!, hr = cells[h + i]!, hi = cells[h + half + i]!;
    cells[acc + i] = cells[acc + i]! + xr * hr - xi * hi;
    cells[acc + half + i] = cells[acc + half + i]! + xr * hi + xi * hr;
  }
  if (from > 0) return;
  cells[acc] = lowest;
  cells[acc + half] = highest;
}

function part(cells: Float32Array, half: number, re: number, im: number, left: number, right: number): void {
  cells[left] = cells[re]!;
  cells[left + half] = cells[re + half]!;
  cells[right] = cells[im]!;
  cells[right + half] = cells[im + half]!;
  for (let k = 1; k < half; k += 1) {
    const ar = cells[re + k]!, ai = cells[im + k]!, br = cells[re + 2 * half - k]!, bi = cells[im + 2 * half - k]!;
    cells[left + k] = 0.5 * (ar + br);
    cells[left + half + k] = 0.5 * (ai - bi);
    cells[right + k] = 0.5 * (ai + bi);
    cells[right + half + k] = 0.5 * (br - ar);
  }
}

function join(cells: Float32Array, half: number, left: number, right: number, re: number, im: number, scale: number): void {
  cells[im] = scale * cells[left]!;
  cells[re] = scale * cells[right]!;
  cells[im + half] = scale * cells[left + half]!;
  cells[re + half] = scale * cells[right + half]!;
  for (let k = 1; k < half; k += 1) {
    const lr = cells[left + k]!, li = cells[left + half + k]!, rr = cells[right + k]!, ri = cells[right + half + k]!;
    cells[im + k] = scale * (lr - ri);
    cells[re + k] = scale * (li + rr);
    cells[im + 2 * half - k] = scale * (lr + ri);
    cells[re + 2 * half - k] = scale * (rr - li);
  }
}
