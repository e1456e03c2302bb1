/** Samples of a processing step of the engine and of every effect. */
export const STEP_FRAMES = 64;

/** STEP_FRAMES samples of a stereo signal. */
export interface StereoBlock {
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** Address in the memory of the engine's mixer, in bytes; -1 outside of it. */
  readonly at: number;
}

export const makeStereoBlock = (frames = STEP_FRAMES): StereoBlock => ({
  left: new Float64Array(frames),
  right: new Float64Array(frames),
  at: -1,
});

/**
 * Copies a block. The built-in costs a microsecond on its first call after the audio thread has slept, and half as much
 * as a loop after that, which pays as devices ask for several blocks at once. `fill`, `set` between types and memory.copy
 * in a kernel do not pay: they are loops.
 */
export function copyBlock(from: Float64Array, to: Float64Array): void {
  to.set(from);
}

/** Copies a block to single precision. */
export function toFloat32Block(from: Float64Array, to: Float32Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 4) {
    to[i] = from[i]!;
    to[i + 1] = from[i + 1]!;
    to[i + 2] = from[i + 2]!;
    to[i + 3] = from[i + 3]!;
  }
}

/** Copies a block to double precision. */
export function toFloat64Block(from: Float32Array, to: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 4) {
    to[i] = from[i]!;
    to[i + 1] = from[i + 1]!;
    to[i + 2] = from[i + 2]!;
    to[i + 3] = from[i + 3]!;
  }
}

/** Fills a block with zeros. */
export function clearBlock(block: Float64Array): void {
  for (let i = 0; i < STEP_FRAMES; i += 4) block[i] = block[i + 1] = block[i + 2] = block[i + 3] = 0;
}
