import { STEP_FRAMES } from '../../blocks';

export const NETWORK_LINES = 16;
/** Lines that are turned with one another are so far apart; a power of two. */
export const PAIR_SPAN = 8;
export const PAIRS = NETWORK_LINES / 2;
/** Figures of a line's two shelves: b0 b1 b2 a1 a2 of one, in powers of z - 1 (dsp/shelf.ts), then of the other. */
export const SHELF_FIGURES = 10;
/** Where the rings are, in bytes; this and the values below are repeated in kernels/network/kernel.as.ts. */
export const RINGS_AT = 7424;

export interface NetworkMemory {
  readonly now: Float32Array;
  readonly move: Float32Array;
  readonly states: Float32Array;
  /** What left hears of each line, then right. */
  readonly outGains: Float32Array;
  /** What each line takes of left, then of right. */
  readonly inGains: Float32Array;
  /** How what is heard of each line moves a sample, left, then right. */
  readonly outGainSteps: Float32Array;
  /**
   * Cosines of the angles by which pairs of lines are turned before they are mixed, then their sines; then how both
   * move a sample.
   */
  readonly rotations: Float32Array;
  /** In samples before the step, and how they move a sample. */
  readonly delays: Float64Array;
  readonly slopes: Float64Array;
  /** Left, then right. */
  readonly input: Float32Array;
  readonly output: Float32Array;
  readonly read: Float32Array;
  readonly rings: Float32Array;
}

export function networkMemoryIn(buffer: ArrayBuffer, size: number): NetworkMemory {
  const floats = (at: number, length: number): Float32Array => new Float32Array(buffer, at, length);
  return {
    now: floats(0, SHELF_FIGURES * NETWORK_LINES),
    move: floats(640, SHELF_FIGURES * NETWORK_LINES),
    states: floats(1280, 4 * NETWORK_LINES),
    outGains: floats(1536, 2 * NETWORK_LINES),
    inGains: floats(1664, 2 * NETWORK_LINES),
    outGainSteps: floats(7168, 2 * NETWORK_LINES),
    rotations: floats(7296, 2 * NETWORK_LINES),
    delays: new Float64Array(buffer, 1792, NETWORK_LINES),
    slopes: new Float64Array(buffer, 1920, NETWORK_LINES),
    input: floats(2048, 2 * STEP_FRAMES),
    output: floats(2560, 2 * STEP_FRAMES),
    read: floats(3072, NETWORK_LINES * STEP_FRAMES),
    rings: floats(RINGS_AT, NETWORK_LINES * size),
  };
}
