import { STEP_FRAMES } from '../../dsp/blocks';

/** Samples of a block whose energy is measured. */
const BLOCK = 32;
/** Ratio of a block's energy to the mean before it that makes an onset (12 dB). */
const RISE = 16;
/** Time constant of that mean, and the minimum distance of two onsets. */
const FORGET_SECONDS = 0.012;
const APART_SECONDS = 0.04;
/** Mean square below which a block is silence. */
const SILENCE = 1e-8;
const KEPT = 8;

/** Detects where hits begin in a stream, to a block of 32 samples. */
export class OnsetQueue {
  private readonly positions = new Float64Array(KEPT).fill(Infinity);
  private next = 0;
  private before = 0;
  private last = -Infinity;
  private readonly decay: number;
  private readonly minDistance: number;

  constructor(sampleRate: number) {
    this.decay = Math.exp(-BLOCK / (FORGET_SECONDS * sampleRate));
    this.minDistance = APART_SECONDS * sampleRate;
  }

  clear(): void {
    this.positions.fill(Infinity);
    this.before = 0;
    this.last = -Infinity;
  }

  /** @param place position of the first sample of the block */
  detect(place: number, left: Float64Array, right: Float64Array): void {
    for (let from = 0; from < STEP_FRAMES; from += BLOCK) {
      let energy = 0;
      for (let i = from; i < from + BLOCK; i += 1) energy += left[i]! * left[i]! + right[i]! * right[i]!;
      energy /= BLOCK;
      if (energy > SILENCE && energy > RISE * this.before && place + from - this.last > this.minDistance) {
        this.last = place + from;
        this.positions[this.next] = this.last;
        this.next = (this.next + 1) & (KEPT - 1);
      }
      const kept = this.before * this.decay;
      this.before = energy > kept ? energy : kept;
    }
  }

  /** The first onset after a position, up to another; Infinity where there is none. */
  first(after: number, until: number): number {
    let found = Infinity;
    for (let i = 0; i < KEPT; i += 1) {
      const place = this.positions[i]!;
      if (place > after && place <= until && place < found) found = place;
    }
    return found;
  }

  /** The last onset up to a position; -Infinity where none is stored. */
  lastUpTo(place: number): number {
    let found = -Infinity;
    for (let i = 0; i < KEPT; i += 1)
      if (this.positions[i]! <= place && this.positions[i]! > found) found = this.positions[i]!;
    return found;
  }
}
