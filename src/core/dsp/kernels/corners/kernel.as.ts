// AssemblyScript. Curves with corners, each corner band-limited. The same work in TypeScript, with what it rests on:
// effects/drive/antialiasedShaper.ts and dsp/bandlimitedCorner.ts. Addresses are bytes, counts are samples and
// multiples of four.

/** Index in the drive's curves, told by the caller once. */
const HARD: i32 = 0;
const FOLD: i32 = 1;
const WRAP: i32 = 2;
const DRAWN: i32 = 3;

/** From the beginning of the room: segments before and after each of four corners, as i32. */
const BEFORE: usize = 0;
const AFTER: usize = 16;
/** What came last on either side: three inputs, four outputs, as f32. */
const HISTORIES: usize = 32;
const HISTORY: usize = 32;
/** Changes of a drawn curve's slope and curvature at its nine points, as f32; then the curve in 1024 steps. */
const SLOPES: usize = 96;
const CURVATURES: usize = 132;
const TABLE: usize = 256;
const TABLE_STEPS: f64 = 1024;
const DRAWN_LAST: i32 = 8;
/** Input after three earlier samples, and output after four. */
const X: usize = 4416;
const Y: usize = 6528;
const MAX_CORNERS: i32 = 12;
const MAX_SPEED: f64 = 1.5;

@inline
function splat(x: f32): v128 {
  return f32x4.splat(x);
}

@inline
function segmentsOf(kind: i32, x: v128): v128 {
  if (kind == HARD) return i32x4.add(i32x4.sub(i32x4.splat(1), f32x4.gt(x, splat(1))), f32x4.lt(x, splat(-1)));
  if (kind == DRAWN)
    return i32x4.max_s(
      i32x4.splat(-1),
      i32x4.min_s(
        i32x4.splat(DRAWN_LAST),
        i32x4.trunc_sat_f32x4_s(f32x4.floor(f32x4.mul(splat(4), f32x4.add(x, splat(1))))),
      ),
    );
  return i32x4.trunc_sat_f32x4_s(f32x4.floor(f32x4.mul(splat(0.5), f32x4.add(x, splat(1)))));
}

@inline
function drawnAt(table: usize, x: f32): f32 {
  const place = 0.5 * (<f64>x + 1) * TABLE_STEPS;
  if (place <= 0) return load<f32>(table);
  if (place >= TABLE_STEPS) return load<f32>(table, 4096);
  const k = <i32>place;
  const at = table + ((<usize>k) << 2);
  const a = <f64>load<f32>(at);
  return <f32>(a + (<f64>load<f32>(at, 4) - a) * (place - <f64>k));
}

@inline
function shaped(kind: i32, room: usize, x: v128, segments: v128, from: usize): v128 {
  if (kind == HARD) return f32x4.max(splat(-1), f32x4.min(splat(1), x));
  if (kind == DRAWN) {
    const table = room + TABLE;
    let y = splat(drawnAt(table, load<f32>(from)));
    y = f32x4.replace_lane(y, 1, drawnAt(table, load<f32>(from, 4)));
    y = f32x4.replace_lane(y, 2, drawnAt(table, load<f32>(from, 8)));
    return f32x4.replace_lane(y, 3, drawnAt(table, load<f32>(from, 12)));
  }
  const rest = f32x4.sub(x, f32x4.mul(splat(2), f32x4.convert_i32x4_s(segments)));
  if (kind == WRAP) return rest;
  // Every second segment is turned over: its sign bit is what tells odd from even.
  return v128.xor(rest, i32x4.shl(segments, 31));
}

@inline
function slopeChange(kind: i32, room: usize, corner: i32): f64 {
  if (kind == HARD) return corner == 1 ? 1 : -1;
  if (kind == FOLD) return corner & 1 ? -2 : 2;
  return kind == DRAWN ? <f64>load<f32>(room + SLOPES + ((<usize>corner) << 2)) : 0;
}

@inline
function heightOf(kind: i32, corner: i32): f64 {
  if (kind == HARD) return <f64>(2 * corner - 3);
  return kind == DRAWN ? 0.25 * <f64>corner - 1 : <f64>(2 * corner - 1);
}

/** Integrals of the B-spline of third order, as in dsp/bandlimitedCorner.ts. */
@inline
function onceLate(u: f64): f64 {
  const v = u - 1;
  return 0.5 + v * (2.0 / 3 - v * v * (1.0 / 3 + v / 8));
}
@inline
function twiceLate(u: f64): f64 {
  const v = u - 1;
  return 7.0 / 30 + v * (0.5 + v * (1.0 / 3 - v * v * (1.0 / 12 + v / 40)));
}
@inline
function threeTimesLate(u: f64): f64 {
  const v = u - 1;
  return 1.0 / 12 + v * (7.0 / 30 + v * (0.25 + v * (1.0 / 9 - v * v * (1.0 / 60 + v / 240))));
}
@inline
function add(at: usize, x: f64): void {
  store<f32>(at, <f32>(<f64>load<f32>(at) + x));
}

@inline
function addCorner(at: usize, since: f64, height: f64, slope: f64, curvature: f64): void {
  const until = 1 - since;
  const since4 = since * since * since * since,
    until4 = until * until * until * until;
  const jump = height - curvature * (1.0 / 6);
  add(at, since4 * (jump * (1.0 / 24) + since * (slope * (1.0 / 120) + since * curvature * (1.0 / 720))));
  add(at + 4, jump * onceLate(since) + slope * twiceLate(since) + curvature * threeTimesLate(since));
  add(at + 8, slope * twiceLate(until) - jump * onceLate(until) - curvature * threeTimesLate(until));
  add(at + 12, until4 * (until * (slope * (1.0 / 120) - until * curvature * (1.0 / 720)) - jump * (1.0 / 24)));
}

/**
 * Corrects the corners between the second and the third of four samples.
 * @param x first of the four
 * @param y second of the outputs that belong to them
 */
function correct(kind: i32, room: usize, x: usize, y: usize, before: i32, after: i32): void {
  const up = after > before;
  const sign: f64 = up ? 1 : -1;
  const from = up ? before + 1 : after + 1;
  const to = up ? after : before;
  if (to - from >= MAX_CORNERS) return;
  const x0 = <f64>load<f32>(x),
    start = <f64>load<f32>(x, 4),
    x2 = <f64>load<f32>(x, 8),
    x3 = <f64>load<f32>(x, 12);
  const rise = x2 - start;
  let first = x2 - x0 * (1.0 / 3) - start * 0.5 - x3 * (1.0 / 6);
  let second = 0.5 * (x0 + x2) - start;
  let third = (x3 - x0) * (1.0 / 6) + 0.5 * (start - x2);
  // A cubic that turns between its samples says nothing about where a corner is met: a straight line is taken.
  if (!(
    sign * first > 0 &&
    sign * (first + second + 0.75 * third) > 0 &&
    sign * (first + 2 * second + 3 * third) > 0
  )) {
    first = rise;
    second = third = 0;
  }
  for (let corner = from; corner <= to; corner += 1) {
    const height = heightOf(kind, corner);
    let t = (height - start) / rise;
    for (let k = 0; k < 2; k += 1) {
      t -= (start + t * (first + t * (second + t * third)) - height) / (first + t * (2 * second + 3 * t * third));
      t = t < 0 ? 0 : t > 1 ? 1 : t;
    }
    const speed = first + t * (2 * second + 3 * t * third);
    const turn = sign * slopeChange(kind, room, corner);
    let curvature = turn * (2 * second + 6 * t * third);
    if (kind == DRAWN && speed < MAX_SPEED && speed > -MAX_SPEED)
      curvature += sign * <f64>load<f32>(room + CURVATURES + ((<usize>corner) << 2)) * speed * speed;
    addCorner(y, 1 - t, kind == WRAP ? -2 * sign : 0, turn * speed, curvature);
  }
}

/** `kind` is a constant where this is called. */
@inline
function run(kind: i32, room: usize, n: i32): void {
  const from = room + X,
    to = room + Y;
  // Segments of the second and third sample, between which is what is looked at first.
  const earlier = v128.load(from);
  let last = segmentsOf(kind, v128.shuffle<i32>(earlier, earlier, 0, 0, 1, 2));
  for (let i: usize = 0; i < 4 * <usize>n; i += 16) {
    const x = v128.load(from + i, 12);
    const segments = segmentsOf(kind, x);
    v128.store(to + i, shaped(kind, room, x, segments, from + i + 12), 16);
    const before = v128.shuffle<i32>(last, segments, 2, 3, 4, 5),
      after = v128.shuffle<i32>(last, segments, 3, 4, 5, 6);
    last = segments;
    if (!v128.any_true(i32x4.ne(before, after))) continue;
    v128.store(room, before, BEFORE);
    v128.store(room, after, AFTER);
    for (let k: usize = 0; k < 16; k += 4) {
      const a = load<i32>(room + k, BEFORE),
        b = load<i32>(room + k, AFTER);
      if (a != b) correct(kind, room, from + i + k, to + i + k + 4, a, b);
    }
  }
}

/**
 * Shapes n samples in place.
 * @param room where all of the above is
 * @param side 0 left, 1 right
 * @param kind 0 hard, 1 fold, 2 wrap, 3 drawn
 * @param drive gain before the curve, growing by `step` with each sample
 */
export function shape(room: usize, side: i32, cells: usize, kind: i32, n: i32, drive: f32, step: f32): void {
  const history = room + HISTORIES + HISTORY * <usize>side,
    x = room + X,
    y = room + Y;
  const bytes: usize = 4 * <usize>n;
  v128.store(x, v128.load(history));
  v128.store(y, v128.load(history, 12));
  let level = f32x4.add(splat(drive), f32x4.mul(splat(step), f32x4(1, 2, 3, 4)));
  const four = splat(4 * step);
  for (let i: usize = 0; i < bytes; i += 16) {
    v128.store(x + i, f32x4.mul(level, v128.load(cells + i)), 12);
    level = f32x4.add(level, four);
  }
  if (kind == HARD) run(HARD, room, n);
  else if (kind == FOLD) run(FOLD, room, n);
  else if (kind == WRAP) run(WRAP, room, n);
  else run(DRAWN, room, n);
  for (let i: usize = 0; i < bytes; i += 16) v128.store(cells + i, v128.load(y + i, 4));
  v128.store(history, v128.load(x + bytes));
  v128.store(history, v128.load(y + bytes), 12);
}
