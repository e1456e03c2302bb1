// AssemblyScript. What an engine does with every block of every channel besides treating it. The same work in TypeScript,
// to the bit: engine/blockMixerReference.ts. A block is 64 samples of left, then of right, in f64; addresses are bytes.
// Figures are at the start of memory.

const SIDE: usize = 512;

@inline
function rising(from: usize): v128 {
  const step = load<f64>(from, 8);
  const first = load<f64>(from) + step;
  return f64x2(first, first + step);
}

@inline
function largest(lanes: v128): f64 {
  const a = f64x2.extract_lane(lanes, 0),
    b = f64x2.extract_lane(lanes, 1);
  return a > b ? a : b;
}

@inline
function sumOf(lanes: v128): f64 {
  return f64x2.extract_lane(lanes, 0) + f64x2.extract_lane(lanes, 1);
}

/** Leaves the sum of all samples in figure 4: it is finite only when every sample is. */
export function sum(block: usize): void {
  let a = f64x2.splat(0),
    b = f64x2.splat(0);
  for (let i: usize = 0; i < 2 * SIDE; i += 32) {
    a = f64x2.add(a, v128.load(block + i));
    b = f64x2.add(b, v128.load(block + i, 16));
  }
  store<f64>(32, sumOf(f64x2.add(a, b)));
}

/**
 * Mixes `wet` into `io`: figures 0 to 3 are the gain of `io` and its step, that of `wet` and its step. Leaves their
 * peaks in 4 and 5: of `io` as it was, of `wet` as it is added.
 */
export function blend(io: usize, wet: usize): void {
  let dryGain = rising(0),
    wetGain = rising(16);
  const dryStep = f64x2.splat(2 * load<f64>(8)),
    wetStep = f64x2.splat(2 * load<f64>(24));
  let dryLeft = f64x2.splat(0),
    dryRight = f64x2.splat(0),
    wetLeft = f64x2.splat(0),
    wetRight = f64x2.splat(0);
  for (let i: usize = 0; i < SIDE; i += 16) {
    const l = v128.load(io + i),
      r = v128.load(io + SIDE + i);
    const wl = f64x2.mul(v128.load(wet + i), wetGain),
      wr = f64x2.mul(v128.load(wet + SIDE + i), wetGain);
    v128.store(io + i, f64x2.add(f64x2.mul(l, dryGain), wl));
    v128.store(io + SIDE + i, f64x2.add(f64x2.mul(r, dryGain), wr));
    dryLeft = f64x2.pmax(dryLeft, f64x2.abs(l));
    dryRight = f64x2.pmax(dryRight, f64x2.abs(r));
    wetLeft = f64x2.pmax(wetLeft, f64x2.abs(wl));
    wetRight = f64x2.pmax(wetRight, f64x2.abs(wr));
    dryGain = f64x2.add(dryGain, dryStep);
    wetGain = f64x2.add(wetGain, wetStep);
  }
  store<f64>(32, largest(f64x2.pmax(dryLeft, dryRight)));
  store<f64>(40, largest(f64x2.pmax(wetLeft, wetRight)));
}

/** Adds `block` to `bus`: figures 0 and 1 are its gain and the step of it. */
export function add(bus: usize, block: usize): void {
  let gain = rising(0);
  const step = f64x2.splat(2 * load<f64>(8));
  for (let i: usize = 0; i < SIDE; i += 16) {
    v128.store(bus + i, f64x2.add(v128.load(bus + i), f64x2.mul(v128.load(block + i), gain)));
    v128.store(bus + SIDE + i, f64x2.add(v128.load(bus + SIDE + i), f64x2.mul(v128.load(block + SIDE + i), gain)));
    gain = f64x2.add(gain, step);
  }
}

/** Samples of a ring's side. */
const RING_SIDE: usize = 8 * 1024;

/**
 * Delays a block in place: writes it to a ring, and reads what was written so many samples before.
 * @param size samples in use of each side of the ring, a power of two
 * @param writeIndex a multiple of 64
 * @param samples up to `size` less 64
 */
export function delay(block: usize, ring: usize, size: i32, writeIndex: i32, samples: i32): void {
  const from = (writeIndex - samples) & (size - 1);
  for (let side: usize = 0; side < 2; side += 1) {
    const io = block + side * SIDE,
      base = ring + side * RING_SIDE;
    const to = base + ((<usize>writeIndex) << 3);
    for (let i: usize = 0; i < SIDE; i += 16) v128.store(to + i, v128.load(io + i));
    const at = base + ((<usize>from) << 3);
    if (from + 64 <= size) for (let i: usize = 0; i < SIDE; i += 16) v128.store(io + i, v128.load(at + i));
    else
      for (let i = 0; i < 64; i += 1)
        store<f64>(io + ((<usize>i) << 3), load<f64>(base + ((<usize>((from + i) & (size - 1))) << 3)));
  }
}

@inline
function rounded(lanes: v128): v128 {
  return f64x2.promote_low_f32x4(f32x4.demote_f64x2_zero(lanes));
}

/**
 * Takes a block in single precision and levels its sides: figures 0 to 3 as of `blend`, for left and right. Leaves their
 * peaks in 4 and 5, and the sums of left squared, right squared and left times right in 6 to 8.
 */
export function level(block: usize): void {
  let leftGain = rising(0),
    rightGain = rising(16);
  const leftStep = f64x2.splat(2 * load<f64>(8)),
    rightStep = f64x2.splat(2 * load<f64>(24));
  let peakLeft = f64x2.splat(0),
    peakRight = f64x2.splat(0),
    ll = f64x2.splat(0),
    rr = f64x2.splat(0),
    lr = f64x2.splat(0);
  for (let i: usize = 0; i < SIDE; i += 16) {
    const l = f64x2.mul(rounded(v128.load(block + i)), leftGain),
      r = f64x2.mul(rounded(v128.load(block + SIDE + i)), rightGain);
    v128.store(block + i, l);
    v128.store(block + SIDE + i, r);
    peakLeft = f64x2.pmax(peakLeft, f64x2.abs(l));
    peakRight = f64x2.pmax(peakRight, f64x2.abs(r));
    ll = f64x2.add(ll, f64x2.mul(l, l));
    rr = f64x2.add(rr, f64x2.mul(r, r));
    lr = f64x2.add(lr, f64x2.mul(l, r));
    leftGain = f64x2.add(leftGain, leftStep);
    rightGain = f64x2.add(rightGain, rightStep);
  }
  store<f64>(32, largest(peakLeft));
  store<f64>(40, largest(peakRight));
  store<f64>(48, sumOf(ll));
  store<f64>(56, sumOf(rr));
  store<f64>(64, sumOf(lr));
}
