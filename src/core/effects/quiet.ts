import { STEP_FRAMES, type StereoRun } from './define';

/** -120 dBFS: nothing under it is heard. */
const SILENCE = 1e-6;

/**
 * Tells when an effect rings no more: input and, where it is told of it, output have been silent for as long as it
 * remembers.
 */
export class Quiet {
  private frames = Infinity;
  private readonly patience: number;

  /** @param memorySeconds how long a sound stays inside the effect */
  constructor(memorySeconds: number, sampleRate: number) {
    this.patience = memorySeconds * sampleRate + STEP_FRAMES;
  }

  get silent(): boolean {
    return this.frames > this.patience;
  }

  clear(): void {
    this.frames = Infinity;
  }

  /** Takes the input of a step, before it is treated. */
  listen(input: StereoRun): void {
    this.frames = isAudible(input) ? 0 : this.frames + STEP_FRAMES;
  }

  /** Takes what a step gave, for an effect that rings on by itself: a resonance or a loop. */
  hear(wet: StereoRun): void {
    if (isAudible(wet)) this.frames = 0;
  }
}

/** True when anything in a step lies above -120 dBFS. */
export function isAudible({ left, right }: StereoRun): boolean {
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    if (left[i]! > SILENCE || left[i]! < -SILENCE || right[i]! > SILENCE || right[i]! < -SILENCE) return true;
  }
  return false;
}
