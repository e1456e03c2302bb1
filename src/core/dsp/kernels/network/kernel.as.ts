// AssemblyScript. One step of a feedback delay network of sixteen lines. The same work in TypeScript:
// reference.ts. Layout of the memory: dsp/feedbackNetwork.ts.

import { madd, nmadd } from '../shared/madd.as';

const LINES: i32 = 16;
const FRAMES: i32 = 64;
const ROW: usize = 64;
const RUN: usize = 256;
/**
 * Sixteen figures each: the two shelves of a line as sections in powers of z - 1, how they move a sample, and their
 * states.
 */
const NOW: usize = 0;
const MOVE: usize = 640;
const STATES: usize = 1280;
const OUT_GAINS: usize = 1536;
const IN_GAINS: usize = 1664;
/** Delay of every line before the step, and how it moves a sample, as f64. */
const DELAYS: usize = 1792;
const SLOPES: usize = 1920;
const INPUT: usize = 2048;
const OUTPUT: usize = 2560;
const READ: usize = 3072;
/**
 * How what is heard of each line moves a sample; cosines and sines of the pairs' angles, and how they move a sample.
 */
const OUT_GAIN_STEPS: usize = 7168;
const ROTATIONS: usize = 7296;
const RINGS: usize = 7424;

@inline
function flushed(v: v128): v128 {
  const tiny = f32x4.splat(1e-15);
  return f32x4.sub(f32x4.add(v, tiny), tiny);
}

/**
 * Four-point Lagrange reading at a moving place, as DelayLine.cubic; four neighbours at once while their places are
 * neighbours too.
 */
function readMoving(ring: usize, mask: i32, place: i32, delay: f64, slope: f64, to: usize): void {
  const sixth = f32x4.splat(<f32>(1.0 / 6.0)),
    half = f32x4.splat(0.5),
    one = f32x4.splat(1),
    two = f32x4.splat(2);
  const ramp = f32x4.mul(f32x4.splat(<f32>-slope), f32x4(0, 1, 2, 3));
  for (let i = 0; i < FRAMES; i += 4) {
    const from = <f64>(place + i) - (delay + slope * <f64>(i + 1));
    const whole = Math.floor(from);
    const f0 = from - whole;
    const f3 = f0 - 3 * slope;
    const at = (<i32>whole - 1) & mask;
    if (f3 < 0 || f3 >= 1 || at + 7 > mask) {
      for (let k = 0; k < 4; k += 1)
        readOne(ring, mask, <f64>(place + i + k) - (delay + slope * <f64>(i + k + 1)), to + ((<usize>(i + k)) << 2));
      continue;
    }
    const base = ring + ((<usize>at) << 2);
    const f = f32x4.add(f32x4.splat(<f32>f0), ramp);
    const p = f32x4.add(f, one),
      q = f32x4.sub(f, one),
      r = f32x4.sub(f, two);
    const fq = f32x4.mul(f, q),
      pr = f32x4.mul(p, r);
    const outer = f32x4.mul(
      f32x4.mul(fq, sixth),
      f32x4.sub(f32x4.mul(p, v128.load(base, 12)), f32x4.mul(r, v128.load(base))),
    );
    const inner = f32x4.mul(
      f32x4.mul(pr, half),
      f32x4.sub(f32x4.mul(q, v128.load(base, 4)), f32x4.mul(f, v128.load(base, 8))),
    );
    v128.store(to + ((<usize>i) << 2), f32x4.add(outer, inner));
  }
}

function readOne(ring: usize, mask: i32, from: f64, to: usize): void {
  const whole = Math.floor(from);
  const f = <f32>(from - whole);
  const at = <i32>whole;
  const a = load<f32>(ring + ((<usize>((at - 1) & mask)) << 2));
  const b = load<f32>(ring + ((<usize>(at & mask)) << 2));
  const c = load<f32>(ring + ((<usize>((at + 1) & mask)) << 2));
  const d = load<f32>(ring + ((<usize>((at + 2) & mask)) << 2));
  const p = f + 1,
    q = f - 1,
    r = f - 2;
  store<f32>(to, f * q * <f32>(1.0 / 6.0) * (p * d - r * a) + p * r * <f32>0.5 * (q * b - f * c));
}

function readWhole(ring: usize, mask: i32, from: i32, to: usize): void {
  const at = from & mask;
  if (at + FRAMES - 1 <= mask)
    for (let i: usize = 0; i < RUN; i += 16) v128.store(to + i, v128.load(ring + ((<usize>at) << 2) + i));
  else
    for (let i = 0; i < FRAMES; i += 1)
      store<f32>(to + ((<usize>i) << 2), load<f32>(ring + ((<usize>((at + i) & mask)) << 2)));
}

@inline
function ramped(gain: usize, move: usize): v128 {
  return f32x4.add(v128.load32_splat(gain), f32x4.mul(v128.load32_splat(move), f32x4(1, 2, 3, 4)));
}

/** Adds what both sides hear of four lines, the gains moving. */
function hear(group: usize): void {
  const gains = OUT_GAINS + group * 16,
    moves = OUT_GAIN_STEPS + group * 16;
  const four = f32x4.splat(4);
  let l0 = ramped(gains, moves),
    l1 = ramped(gains + 4, moves + 4),
    l2 = ramped(gains + 8, moves + 8),
    l3 = ramped(gains + 12, moves + 12);
  let r0 = ramped(gains + ROW, moves + ROW),
    r1 = ramped(gains + ROW + 4, moves + ROW + 4);
  let r2 = ramped(gains + ROW + 8, moves + ROW + 8),
    r3 = ramped(gains + ROW + 12, moves + ROW + 12);
  const l0m = f32x4.mul(four, v128.load32_splat(moves)),
    l1m = f32x4.mul(four, v128.load32_splat(moves, 4));
  const l2m = f32x4.mul(four, v128.load32_splat(moves, 8)),
    l3m = f32x4.mul(four, v128.load32_splat(moves, 12));
  const r0m = f32x4.mul(four, v128.load32_splat(moves + ROW)),
    r1m = f32x4.mul(four, v128.load32_splat(moves + ROW, 4));
  const r2m = f32x4.mul(four, v128.load32_splat(moves + ROW, 8)),
    r3m = f32x4.mul(four, v128.load32_splat(moves + ROW, 12));
  const from = READ + group * 4 * RUN;
  for (let i: usize = 0; i < RUN; i += 16) {
    const a = v128.load(from + i),
      b = v128.load(from + RUN + i),
      c = v128.load(from + 2 * RUN + i),
      d = v128.load(from + 3 * RUN + i);
    const left = f32x4.add(madd(l0, a, f32x4.mul(l1, b)), madd(l2, c, f32x4.mul(l3, d)));
    const right = f32x4.add(madd(r0, a, f32x4.mul(r1, b)), madd(r2, c, f32x4.mul(r3, d)));
    v128.store(OUTPUT + i, f32x4.add(v128.load(OUTPUT + i), left));
    v128.store(OUTPUT + RUN + i, f32x4.add(v128.load(OUTPUT + RUN + i), right));
    l0 = f32x4.add(l0, l0m);
    l1 = f32x4.add(l1, l1m);
    l2 = f32x4.add(l2, l2m);
    l3 = f32x4.add(l3, l3m);
    r0 = f32x4.add(r0, r0m);
    r1 = f32x4.add(r1, r1m);
    r2 = f32x4.add(r2, r2m);
    r3 = f32x4.add(r3, r3m);
  }
}

/** Both shelves of four lines at once, in place: samples are turned so that a vector holds one moment of four lines. */
@inline
function absorbBy(group: usize, moving: bool): void {
  const at = group * 16;
  let b0 = v128.load(NOW + at),
    b1 = v128.load(NOW + ROW + at),
    b2 = v128.load(NOW + 2 * ROW + at);
  let a1 = v128.load(NOW + 3 * ROW + at),
    a2 = v128.load(NOW + 4 * ROW + at);
  let c0 = v128.load(NOW + 5 * ROW + at),
    c1 = v128.load(NOW + 6 * ROW + at),
    c2 = v128.load(NOW + 7 * ROW + at);
  let d1 = v128.load(NOW + 8 * ROW + at),
    d2 = v128.load(NOW + 9 * ROW + at);
  let s = v128.load(STATES + at),
    t = v128.load(STATES + ROW + at);
  let u = v128.load(STATES + 2 * ROW + at),
    v = v128.load(STATES + 3 * ROW + at);
  const from = READ + group * 4 * RUN;
  for (let i: usize = 0; i < RUN; i += 16) {
    const r0 = v128.load(from + i),
      r1 = v128.load(from + RUN + i),
      r2 = v128.load(from + 2 * RUN + i),
      r3 = v128.load(from + 3 * RUN + i);
    const t0 = v128.shuffle<i32>(r0, r1, 0, 4, 1, 5),
      t1 = v128.shuffle<i32>(r2, r3, 0, 4, 1, 5);
    const t2 = v128.shuffle<i32>(r0, r1, 2, 6, 3, 7),
      t3 = v128.shuffle<i32>(r2, r3, 2, 6, 3, 7);
    let x0 = v128.shuffle<i64>(t0, t1, 0, 2),
      x1 = v128.shuffle<i64>(t0, t1, 1, 3);
    let x2 = v128.shuffle<i64>(t2, t3, 0, 2),
      x3 = v128.shuffle<i64>(t2, t3, 1, 3);
    for (let k = 0; k < 4; k += 1) {
      if (moving) {
        b0 = f32x4.add(b0, v128.load(MOVE + at));
        b1 = f32x4.add(b1, v128.load(MOVE + ROW + at));
        b2 = f32x4.add(b2, v128.load(MOVE + 2 * ROW + at));
        a1 = f32x4.add(a1, v128.load(MOVE + 3 * ROW + at));
        a2 = f32x4.add(a2, v128.load(MOVE + 4 * ROW + at));
        c0 = f32x4.add(c0, v128.load(MOVE + 5 * ROW + at));
        c1 = f32x4.add(c1, v128.load(MOVE + 6 * ROW + at));
        c2 = f32x4.add(c2, v128.load(MOVE + 7 * ROW + at));
        d1 = f32x4.add(d1, v128.load(MOVE + 8 * ROW + at));
        d2 = f32x4.add(d2, v128.load(MOVE + 9 * ROW + at));
      }
      const x = x0;
      const y = madd(b0, x, s);
      s = nmadd(a1, y, madd(b1, x, f32x4.add(s, t)));
      t = nmadd(a2, y, madd(b2, x, t));
      const z = madd(c0, y, u);
      u = nmadd(d1, z, madd(c1, y, f32x4.add(u, v)));
      v = nmadd(d2, z, madd(c2, y, v));
      x0 = x1;
      x1 = x2;
      x2 = x3;
      x3 = z;
    }
    // In four samples nothing gets from here to where figures are too small to be reckoned with quickly.
    s = flushed(s);
    t = flushed(t);
    u = flushed(u);
    v = flushed(v);
    const u0 = v128.shuffle<i32>(x0, x1, 0, 4, 1, 5),
      u1 = v128.shuffle<i32>(x2, x3, 0, 4, 1, 5);
    const u2 = v128.shuffle<i32>(x0, x1, 2, 6, 3, 7),
      u3 = v128.shuffle<i32>(x2, x3, 2, 6, 3, 7);
    v128.store(from + i, v128.shuffle<i64>(u0, u1, 0, 2));
    v128.store(from + RUN + i, v128.shuffle<i64>(u0, u1, 1, 3));
    v128.store(from + 2 * RUN + i, v128.shuffle<i64>(u2, u3, 0, 2));
    v128.store(from + 3 * RUN + i, v128.shuffle<i64>(u2, u3, 1, 3));
  }
  v128.store(STATES + at, s);
  v128.store(STATES + ROW + at, t);
  v128.store(STATES + 2 * ROW + at, u);
  v128.store(STATES + 3 * ROW + at, v);
}

function absorb(group: usize, moving: bool): void {
  if (moving) absorbBy(group, true);
  else absorbBy(group, false);
}

/**
 * The first `stages` stages of a fast Walsh-Hadamard transform over the lines, in place: sums and differences of lines
 * 1, then 2, 4 and 8 apart. Two stages at a time, which halves the way through memory.
 */
function mix(stages: i32): void {
  if (stages >= 2) mixTwo(1);
  if (stages >= 4) mixAndRotate();
  else if (stages & 1) mixOne((<usize>1) << (stages - 1));
}

function mixOne(span: usize): void {
  const half = f32x4.splat(<f32>0.7071067811865476);
  for (let line: usize = 0; line < <usize>LINES; line += 1) {
    if (line & span) continue;
    const p = READ + line * RUN;
    const q = p + span * RUN;
    for (let i: usize = 0; i < RUN; i += 16) {
      const a = v128.load(p + i),
        b = v128.load(q + i);
      v128.store(p + i, f32x4.mul(half, f32x4.add(a, b)));
      v128.store(q + i, f32x4.mul(half, f32x4.sub(a, b)));
    }
  }
}

/** Stages `span` and twice `span`. */
function mixTwo(span: usize): void {
  const half = f32x4.splat(0.5);
  const way = span * RUN;
  for (let line: usize = 0; line < <usize>LINES; line += 1) {
    if (line & (3 * span)) continue;
    const p = READ + line * RUN;
    for (let at = p; at < p + RUN; at += 16) {
      const a = f32x4.mul(half, v128.load(at)),
        b = f32x4.mul(half, v128.load(at + way));
      const c = f32x4.mul(half, v128.load(at + 2 * way)),
        d = f32x4.mul(half, v128.load(at + 3 * way));
      const ab = f32x4.add(a, b),
        ba = f32x4.sub(a, b),
        cd = f32x4.add(c, d),
        dc = f32x4.sub(c, d);
      v128.store(at, f32x4.add(ab, cd));
      v128.store(at + way, f32x4.add(ba, dc));
      v128.store(at + 2 * way, f32x4.sub(ab, cd));
      v128.store(at + 3 * way, f32x4.sub(ba, dc));
    }
  }
}

/**
 * The last two stages, and behind them a turn of each pair of lines eight apart by an angle that moves: no energy is
 * lost or won.
 */
function mixAndRotate(): void {
  const half = f32x4.splat(0.5),
    four = f32x4.splat(4);
  const way = 4 * RUN;
  for (let line: usize = 0; line < 4; line += 1) {
    const near = ROTATIONS + line * 4,
      far = near + 16;
    let c0 = ramped(near, near + 64),
      s0 = ramped(near + 32, near + 96),
      c1 = ramped(far, far + 64),
      s1 = ramped(far + 32, far + 96);
    const c0m = f32x4.mul(four, v128.load32_splat(near, 64)),
      s0m = f32x4.mul(four, v128.load32_splat(near, 96));
    const c1m = f32x4.mul(four, v128.load32_splat(far, 64)),
      s1m = f32x4.mul(four, v128.load32_splat(far, 96));
    const p = READ + line * RUN;
    for (let at = p; at < p + RUN; at += 16) {
      const a = f32x4.mul(half, v128.load(at)),
        b = f32x4.mul(half, v128.load(at + way));
      const c = f32x4.mul(half, v128.load(at + 2 * way)),
        d = f32x4.mul(half, v128.load(at + 3 * way));
      const ab = f32x4.add(a, b),
        ba = f32x4.sub(a, b),
        cd = f32x4.add(c, d),
        dc = f32x4.sub(c, d);
      const x0 = f32x4.add(ab, cd),
        y0 = f32x4.sub(ab, cd),
        x1 = f32x4.add(ba, dc),
        y1 = f32x4.sub(ba, dc);
      v128.store(at, nmadd(s0, y0, f32x4.mul(c0, x0)));
      v128.store(at + way, nmadd(s1, y1, f32x4.mul(c1, x1)));
      v128.store(at + 2 * way, madd(s0, x0, f32x4.mul(c0, y0)));
      v128.store(at + 3 * way, madd(s1, x1, f32x4.mul(c1, y1)));
      c0 = f32x4.add(c0, c0m);
      s0 = f32x4.add(s0, s0m);
      c1 = f32x4.add(c1, c1m);
      s1 = f32x4.add(s1, s1m);
    }
  }
}

function write(line: usize, ring: usize, mask: i32, place: i32): v128 {
  const left = v128.load32_splat(IN_GAINS + (line << 2));
  const right = v128.load32_splat(IN_GAINS + ROW + (line << 2));
  let peak = f32x4.splat(0);
  for (let i: usize = 0; i < RUN; i += 16) {
    const x = flushed(
      madd(right, v128.load(INPUT + RUN + i), madd(left, v128.load(INPUT + i), v128.load(READ + line * RUN + i))),
    );
    peak = f32x4.max(peak, f32x4.abs(x));
    v128.store(ring + ((<usize>place) << 2) + i, x);
  }
  return peak;
}

/**
 * @param size length of a ring, a power of two that FRAMES divides
 * @param place where the lines are written next, a multiple of FRAMES
 * @param stages how many of the four mixing stages run
 * @param moving whether the shelves move
 * @returns the highest level written
 */
export function step(size: i32, place: i32, stages: i32, moving: bool): f32 {
  for (let i: usize = 0; i < 2 * RUN; i += 16) v128.store(OUTPUT + i, f32x4.splat(0));
  const mask = size - 1;
  for (let line: usize = 0; line < <usize>LINES; line += 1) {
    const ring = RINGS + line * ((<usize>size) << 2);
    const to = READ + line * RUN;
    const delay = load<f64>(DELAYS + (line << 3));
    const slope = load<f64>(SLOPES + (line << 3));
    const whole = <i32>delay;
    if (slope == 0 && <f64>whole == delay) readWhole(ring, mask, place - whole, to);
    else readMoving(ring, mask, place, delay, slope, to);
  }
  for (let group: usize = 0; group < 4; group += 1) {
    hear(group);
    absorb(group, moving);
  }
  mix(stages);
  let peak = f32x4.splat(0);
  for (let line: usize = 0; line < <usize>LINES; line += 1)
    peak = f32x4.max(peak, write(line, RINGS + line * ((<usize>size) << 2), mask, place));
  return max(
    max(f32x4.extract_lane(peak, 0), f32x4.extract_lane(peak, 1)),
    max(f32x4.extract_lane(peak, 2), f32x4.extract_lane(peak, 3)),
  );
}
