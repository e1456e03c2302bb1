// AssemblyScript. Reads two rings between their samples at places that go on evenly or glide, by sixteen points of a
// windowed sinc. The same work in TypeScript: reference.ts. Rings and table are f32, what comes out is f64; addresses
// are bytes. Each ring is followed by a copy of its first sixteen figures, so that what is read always is in one piece.

const TAPS: i32 = 16;
const BEFORE: i32 = 7;
const PHASES: f64 = 2048;

@inline
function under(ring: usize, row: usize): f32 {
  const early = f32x4.add(
    f32x4.mul(v128.load(row), v128.load(ring)),
    f32x4.mul(v128.load(row, 16), v128.load(ring, 16)),
  );
  const late = f32x4.add(
    f32x4.mul(v128.load(row, 32), v128.load(ring, 32)),
    f32x4.mul(v128.load(row, 48), v128.load(ring, 48)),
  );
  const four = f32x4.add(early, late);
  const two = f32x4.add(four, v128.shuffle<i32>(four, four, 2, 3, 0, 1));
  return f32x4.extract_lane(two, 0) + f32x4.extract_lane(two, 1);
}

/** Copies samples: at integer positions the windowed sinc is a unit impulse. */
function copy(ring: usize, mask: i32, start: i32, speed: i32, out: usize, from: i32, to: i32): void {
  let at = start;
  for (let i = from; i < to; i += 1) {
    store<f64>(out + ((<usize>i) << 3), <f64>load<f32>(ring + ((<usize>(at & mask)) << 2)));
    at += speed;
  }
}

/**
 * out[from, to) of both sides: at `start`, then on by `speed`, which grows by `growth` with each sample.
 * @param mask size of the rings less one, a power of two
 */
export function read(
  left: usize,
  right: usize,
  mask: i32,
  table: usize,
  start: f64,
  speed: f64,
  growth: f64,
  outLeft: usize,
  outRight: usize,
  from: i32,
  to: i32,
): void {
  if (growth == 0 && floor<f64>(speed) == speed && floor<f64>(start) == start) {
    copy(left, mask, <i32>start, <i32>speed, outLeft, from, to);
    copy(right, mask, <i32>start, <i32>speed, outRight, from, to);
    return;
  }
  let place = start;
  let step = speed;
  for (let i = from; i < to; i += 1) {
    const whole = floor<f64>(place);
    const row = table + ((<usize>(<i32>((place - whole) * PHASES + 0.5) * TAPS)) << 2);
    const at = (<usize>((<i32>whole - BEFORE) & mask)) << 2;
    store<f64>(outLeft + ((<usize>i) << 3), <f64>under(left + at, row));
    store<f64>(outRight + ((<usize>i) << 3), <f64>under(right + at, row));
    place += step;
    step += growth;
  }
}
