import { STEP_FRAMES, type StereoRun } from './define';

/** -120 dBFS: nothing under it is heard. */
const SILENCE = 1e-6;

/** Tells when an effect without a loop rings no more: its input has been silent for as long as it remembers. */
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

  /** True when the input has been silent for so long. */
  restedFor(seconds: number, sampleRate: number): boolean {
    return this.frames > seconds * sampleRate + STEP_FRAMES;
  }

  clear(): void {
    this.frames = Infinity;
  }

  listen({ left, right }: StereoRun): void {
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      if (left[i]! > SILENCE || left[i]! < -SILENCE || right[i]! > SILENCE || right[i]! < -SILENCE) {
        this.frames = 0;
        return;
      }
    }
    this.frames += STEP_FRAMES;
  }
}
