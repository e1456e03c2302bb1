// AssemblyScript. A row of state-variable filters, both sides at once: left and right are side by side in every 128
// bits. The same work in TypeScript: reference.ts. Layout of the memory: layout.ts.

const FRAMES: usize = 64;
const SECTIONS: usize = 1024;
const SIZE: usize = 144;
const S1: usize = 0;
const S2: usize = 16;
const G: usize = 32;
const K: usize = 40;
const DIRECT: usize = 48;
const BAND: usize = 56;
const LOW: usize = 64;
const STEPS: usize = 72;
const A1: usize = 112;
const A2: usize = 120;
const MOVING: usize = 128;
/** What MOVING says of a section: steady, ramping, or bypassed. */
const FLAT: i32 = 2;
const TINY: f64 = 1e-15;

@inline
function flushed(state: v128): v128 {
  const tiny = f64x2.splat(TINY);
  return f64x2.sub(f64x2.add(state, tiny), tiny);
}

/**
 * How a steady section makes both next states and its output of both states and the sample: rows of one matrix, in
 * turn.
 */
@inline
function figure(p: usize, index: i32): v128 {
  const a1 = load<f64>(p + A1),
    a2 = load<f64>(p + A2),
    g = load<f64>(p + G);
  const d = load<f64>(p + DIRECT),
    b = load<f64>(p + BAND),
    l = load<f64>(p + LOW);
  if (index == 0) return f64x2.splat(2 * a1 - 1);
  if (index == 1) return f64x2.splat(2 * a2);
  if (index == 2) return f64x2.splat(1 - 2 * g * a2);
  if (index == 3) return f64x2.splat(2 * g * a2);
  if (index == 4) return f64x2.splat(d + b * a2 + l * g * a2);
  if (index == 5) return f64x2.splat(b * a1 + l * a2);
  return f64x2.splat(l * (1 - g * a2) - b * a2);
}

/**
 * What comes of the sample's share and both states: less than half the way from sample to sample that the filter's own
 * steps take.
 */
@inline
function joined(share: v128, own: v128, s1: v128, other: v128, s2: v128): v128 {
  if (ASC_FEATURE_RELAXED_SIMD) return f64x2.relaxed_madd(other, s2, f64x2.relaxed_madd(own, s1, share));
  return f64x2.add(share, f64x2.add(f64x2.mul(own, s1), f64x2.mul(other, s2)));
}

/** A steady section. */
function stand(p: usize): void {
  const own = figure(p, 0),
    cross = figure(p, 1),
    low = figure(p, 2),
    intoLow = figure(p, 3),
    direct = figure(p, 4),
    band = figure(p, 5),
    deep = figure(p, 6);
  const back = f64x2.neg(cross);
  let s1 = v128.load(p + S1),
    s2 = v128.load(p + S2);
  for (let at: usize = 0; at < FRAMES * 16; at += 16) {
    const x = v128.load(at);
    v128.store(at, joined(f64x2.mul(direct, x), band, s1, deep, s2));
    const s = joined(f64x2.mul(cross, x), own, s1, back, s2);
    s2 = joined(f64x2.mul(intoLow, x), cross, s1, low, s2);
    s1 = s;
  }
  v128.store(p + S1, flushed(s1));
  v128.store(p + S2, flushed(s2));
}

function move(p: usize): void {
  let g = v128.load64_splat(p + G),
    k = v128.load64_splat(p + K),
    d = v128.load64_splat(p + DIRECT),
    b = v128.load64_splat(p + BAND),
    l = v128.load64_splat(p + LOW);
  const gs = v128.load64_splat(p + STEPS),
    ks = v128.load64_splat(p + STEPS, 8),
    ds = v128.load64_splat(p + STEPS, 16),
    bs = v128.load64_splat(p + STEPS, 24),
    ls = v128.load64_splat(p + STEPS, 32);
  const one = f64x2.splat(1);
  let s1 = v128.load(p + S1),
    s2 = v128.load(p + S2);
  for (let at: usize = 0; at < FRAMES * 16; at += 16) {
    g = f64x2.add(g, gs);
    k = f64x2.add(k, ks);
    d = f64x2.add(d, ds);
    b = f64x2.add(b, bs);
    l = f64x2.add(l, ls);
    const x = v128.load(at);
    const v1 = f64x2.div(f64x2.add(s1, f64x2.mul(g, f64x2.sub(x, s2))), f64x2.add(one, f64x2.mul(g, f64x2.add(g, k))));
    const v2 = f64x2.add(s2, f64x2.mul(g, v1));
    s1 = f64x2.sub(f64x2.add(v1, v1), s1);
    s2 = f64x2.sub(f64x2.add(v2, v2), s2);
    v128.store(at, f64x2.add(f64x2.add(f64x2.mul(d, x), f64x2.mul(b, v1)), f64x2.mul(l, v2)));
  }
  v128.store(p + S1, flushed(s1));
  v128.store(p + S2, flushed(s2));
}

/** Runs the samples at the beginning of the memory through all sections in turn. */
export function run(sections: i32): void {
  const end = SECTIONS + usize(sections) * SIZE;
  for (let p = SECTIONS; p < end; p += SIZE) {
    const moving = load<i32>(p + MOVING);
    if (moving === FLAT) continue;
    if (moving) move(p);
    else stand(p);
  }
}
