// AssemblyScript. Adds 64 samples of a ring, heard at one delay, to what both sides hear. The same work in TypeScript:
// reference.ts. All arrays are f32, addresses are bytes. `levels` holds four figures: where left begins, how it
// moves a sample, the same of right.

const RUN: usize = 256;

@inline
function levelAt(levels: usize): v128 {
  const step = load<f32>(levels, 4);
  return f32x4.add(v128.load32_splat(levels), f32x4.mul(f32x4.splat(step), f32x4(1, 2, 3, 4)));
}

/** At a whole sample. @param left, right first samples of either ring @param sums 64 of left, then of right */
export function addWhole(left: usize, right: usize, levels: usize, sums: usize): void {
  let l = levelAt(levels),
    r = levelAt(levels + 8);
  const dl = f32x4.splat(4 * load<f32>(levels, 4)),
    dr = f32x4.splat(4 * load<f32>(levels, 12));
  for (let i: usize = 0; i < RUN; i += 16) {
    v128.store(sums + i, f32x4.add(v128.load(sums + i), f32x4.mul(l, v128.load(left + i))));
    v128.store(sums + RUN + i, f32x4.add(v128.load(sums + RUN + i), f32x4.mul(r, v128.load(right + i))));
    l = f32x4.add(l, dl);
    r = f32x4.add(r, dr);
  }
}

@inline
function four(at: usize, kernel: usize, k: usize): v128 {
  const a = f32x4.mul(v128.load32_splat(kernel + 4 * k), v128.load(at + 4 * k));
  const b = f32x4.mul(v128.load32_splat(kernel + 4 * k, 4), v128.load(at + 4 * k, 4));
  const c = f32x4.mul(v128.load32_splat(kernel + 4 * k, 8), v128.load(at + 4 * k, 8));
  const d = f32x4.mul(v128.load32_splat(kernel + 4 * k, 12), v128.load(at + 4 * k, 12));
  return f32x4.add(f32x4.add(a, b), f32x4.add(c, d));
}

@inline
function between(at: usize, kernel: usize): v128 {
  return f32x4.add(
    f32x4.add(four(at, kernel, 0), four(at, kernel, 4)),
    f32x4.add(four(at, kernel, 8), four(at, kernel, 12)),
  );
}

/** Between samples. @param left, right first samples under the sixteen figures of `kernel` */
export function addBetween(left: usize, right: usize, kernel: usize, levels: usize, sums: usize): void {
  let l = levelAt(levels),
    r = levelAt(levels + 8);
  const dl = f32x4.splat(4 * load<f32>(levels, 4)),
    dr = f32x4.splat(4 * load<f32>(levels, 12));
  for (let i: usize = 0; i < RUN; i += 16) {
    v128.store(sums + i, f32x4.add(v128.load(sums + i), f32x4.mul(l, between(left + i, kernel))));
    v128.store(sums + RUN + i, f32x4.add(v128.load(sums + RUN + i), f32x4.mul(r, between(right + i, kernel))));
    l = f32x4.add(l, dl);
    r = f32x4.add(r, dr);
  }
}
