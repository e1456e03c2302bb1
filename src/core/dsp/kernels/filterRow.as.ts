// AssemblyScript. A row of state-variable filters, both sides at once: left and right lie side by side in every 128 bits.
// The same work in TypeScript: filterRowScript.ts. Layout of the memory: filterRowLayout.ts.

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
/** What MOVING says of a section: it stands, it moves, or it lets all through as it is and is left out. */
const FLAT: i32 = 2;
const TINY: f64 = 1e-15;

@inline
function flushed(state: v128): v128 {
  const tiny = f64x2.splat(TINY);
  return f64x2.sub(f64x2.add(state, tiny), tiny);
}

/** Two sections that stand, one after the other: while the second works on a sample the first is at the next. */
function standTwo(p: usize, q: usize): void {
  const a1 = v128.load64_splat(p + A1), a2 = v128.load64_splat(p + A2), g = v128.load64_splat(p + G);
  const d = v128.load64_splat(p + DIRECT), b = v128.load64_splat(p + BAND), l = v128.load64_splat(p + LOW);
  const e1 = v128.load64_splat(q + A1), e2 = v128.load64_splat(q + A2), h = v128.load64_splat(q + G);
  const dd = v128.load64_splat(q + DIRECT), bb = v128.load64_splat(q + BAND), ll = v128.load64_splat(q + LOW);
  let s1 = v128.load(p + S1), s2 = v128.load(p + S2), t1 = v128.load(q + S1), t2 = v128.load(q + S2);
  for (let at: usize = 0; at < FRAMES * 16; at += 16) {
    const x = v128.load(at);
    const v1 = f64x2.add(f64x2.mul(a1, s1), f64x2.mul(a2, f64x2.sub(x, s2)));
    const v2 = f64x2.add(s2, f64x2.mul(g, v1));
    s1 = f64x2.sub(f64x2.add(v1, v1), s1);
    s2 = f64x2.sub(f64x2.add(v2, v2), s2);
    const y = f64x2.add(f64x2.add(f64x2.mul(d, x), f64x2.mul(b, v1)), f64x2.mul(l, v2));
    const w1 = f64x2.add(f64x2.mul(e1, t1), f64x2.mul(e2, f64x2.sub(y, t2)));
    const w2 = f64x2.add(t2, f64x2.mul(h, w1));
    t1 = f64x2.sub(f64x2.add(w1, w1), t1);
    t2 = f64x2.sub(f64x2.add(w2, w2), t2);
    v128.store(at, f64x2.add(f64x2.add(f64x2.mul(dd, y), f64x2.mul(bb, w1)), f64x2.mul(ll, w2)));
  }
  v128.store(p + S1, flushed(s1));
  v128.store(p + S2, flushed(s2));
  v128.store(q + S1, flushed(t1));
  v128.store(q + S2, flushed(t2));
}

function standOne(p: usize): void {
  const a1 = v128.load64_splat(p + A1), a2 = v128.load64_splat(p + A2), g = v128.load64_splat(p + G);
  const d = v128.load64_splat(p + DIRECT), b = v128.load64_splat(p + BAND), l = v128.load64_splat(p + LOW);
  let s1 = v128.load(p + S1), s2 = v128.load(p + S2);
  for (let at: usize = 0; at < FRAMES * 16; at += 16) {
    const x = v128.load(at);
    const v1 = f64x2.add(f64x2.mul(a1, s1), f64x2.mul(a2, f64x2.sub(x, s2)));
    const v2 = f64x2.add(s2, f64x2.mul(g, v1));
    s1 = f64x2.sub(f64x2.add(v1, v1), s1);
    s2 = f64x2.sub(f64x2.add(v2, v2), s2);
    v128.store(at, f64x2.add(f64x2.add(f64x2.mul(d, x), f64x2.mul(b, v1)), f64x2.mul(l, v2)));
  }
  v128.store(p + S1, flushed(s1));
  v128.store(p + S2, flushed(s2));
}

function move(p: usize): void {
  let g = v128.load64_splat(p + G), k = v128.load64_splat(p + K), d = v128.load64_splat(p + DIRECT), b = v128.load64_splat(p + BAND), l = v128.load64_splat(p + LOW);
  const gs = v128.load64_splat(p + STEPS), ks = v128.load64_splat(p + STEPS, 8), ds = v128.load64_splat(p + STEPS, 16), bs = v128.load64_splat(p + STEPS, 24), ls = v128.load64_splat(p + STEPS, 32);
  const one = f64x2.splat(1);
  let s1 = v128.load(p + S1), s2 = v128.load(p + S2);
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
  let p = heard(SECTIONS, end);
  while (p < end) {
    const q = heard(p + SIZE, end);
    if (load<i32>(p + MOVING)) {
      move(p);
      p = q;
    } else if (q < end && !load<i32>(q + MOVING)) {
      standTwo(p, q);
      p = heard(q + SIZE, end);
    } else {
      standOne(p);
      p = q;
    }
  }
}

/** The first section from here on that is not flat. */
function heard(from: usize, end: usize): usize {
  let p = from;
  while (p < end && load<i32>(p + MOVING) === FLAT) p += SIZE;
  return p;
}
