/** Samples that the engine and all effects work on at once. */
export const STEP_FRAMES = 64;

/** A stereo run of STEP_FRAMES samples. */
export interface StereoBlock {
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** Where it lies in the memory in which an engine mixes, in bytes; -1 for one that lies elsewhere. */
  readonly at: number;
}

export const makeStereoBlock = (frames = STEP_FRAMES): StereoBlock => ({
  left: new Float64Array(frames),
  right: new Float64Array(frames),
  at: -1,
});

/**
 * Copies a run of 64 samples. A built-in is far from a processor that has slept, and its first call after that takes a
 * microsecond; as devices take blocks in bunches, the many calls that follow, each half as long as a loop, win that
 * back. Of `fill`, of `set` from one width to another and of memory.copy in a kernel that is not so: they are loops.
 */
export function copyBlock(from: Float64Array, to: Float64Array): void {
  to.set(from);
}

/** Copies a run to half as wide figures. */
export function toFloat32Block(from: Float64Array, to: Float32Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 4) {
    to[i] = from[i]!;
    to[i + 1] = from[i + 1]!;
    to[i + 2] = from[i + 2]!;
    to[i + 3] = from[i + 3]!;
  }
}

/** Copies a run to twice as wide figures. */
export function toFloat64Block(from: Float32Array, to: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 4) {
    to[i] = from[i]!;
    to[i + 1] = from[i + 1]!;
    to[i + 2] = from[i + 2]!;
    to[i + 3] = from[i + 3]!;
  }
}

/** Empties a run of 64 samples. */
export function clearBlock(run: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 4) run[i] = run[i + 1] = run[i + 2] = run[i + 3] = 0;
}
