// AssemblyScript. Four allpass sections in a row on one run of a signal, and its blend. The same work in TypeScript:
// dsp/allpassDiffuser4.ts, which also says how the memory is laid out. Samples are f64; each ring is longer than a run, so
// that no sample of a run is read in it.

const SECTIONS: i32 = 4;
const SIZES: usize = 0;
const PLACES: usize = 16;
const RINGS: usize = 32;
const GAINS: usize = 48;
const IO: usize = 128;
const SMEARED: usize = 640;

@inline
function flushed(v: v128): v128 {
  return f64x2.sub(f64x2.add(v, f64x2.splat(1e-15)), f64x2.splat(1e-15));
}

/** Samples [from, to) of what is smeared through a ring from `place` on, in one piece. */
@inline
function piece(smeared: usize, ring: usize, place: usize, from: usize, to: usize, gain: f64): void {
  const g = f64x2.splat(gain);
  let i = from;
  let at = ring + 8 * place;
  for (; i + 2 <= to; i += 2, at += 16) {
    const delayed = v128.load(at);
    const into = flushed(f64x2.add(v128.load(smeared + 8 * i), f64x2.mul(g, delayed)));
    v128.store(at, into);
    v128.store(smeared + 8 * i, f64x2.sub(delayed, f64x2.mul(g, into)));
  }
  if (i < to) {
    const delayed = load<f64>(at);
    const into = load<f64>(smeared + 8 * i) + gain * delayed + 1e-15 - 1e-15;
    store<f64>(at, into);
    store<f64>(smeared + 8 * i, delayed - gain * into);
  }
}

/** SMEARED through all sections. @param base where it all is */
export function smear(base: usize, n: i32): void {
  for (let section = 0; section < SECTIONS; section += 1) {
    const cell = (<usize>section) << 2;
    const size = load<i32>(base + SIZES + cell);
    const ring = base + <usize>load<i32>(base + RINGS + cell);
    const gain = load<f64>(base + GAINS + ((<usize>section) << 3));
    let at = load<i32>(base + PLACES + cell);
    for (let from = 0; from < n;) {
      const end = min(n, from + size - at);
      piece(base + SMEARED, ring, <usize>at, <usize>from, <usize>end, gain);
      at += end - from;
      if (at === size) at = 0;
      from = end;
    }
    store<i32>(base + PLACES + cell, at);
  }
}

/** IO becomes itself and SMEARED, blended. @param from share of SMEARED before the first sample, growing by `step` */
export function blend(base: usize, n: i32, from: f64, step: f64): void {
  let share = from;
  for (let i: usize = 0; i < <usize>n; i += 1) {
    share += step;
    const x = load<f64>(base + IO + 8 * i);
    store<f64>(base + IO + 8 * i, x + (load<f64>(base + SMEARED + 8 * i) - x) * share);
  }
}
