import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';

/** -120 dBFS: nothing under it is heard. */
const SILENCE_THRESHOLD = 1e-6;

/**
 * Tells when an effect rings no more: input and, where it is told of it, output have been silent for as long as it
 * remembers.
 */
export class SilenceDetector {
  private silentFor = Infinity;
  private readonly holdFrames: number;

  /** @param memorySeconds how long a sound stays inside the effect */
  constructor(memorySeconds: number, sampleRate: number) {
    this.holdFrames = memorySeconds * sampleRate + STEP_FRAMES;
  }

  get silent(): boolean {
    return this.silentFor > this.holdFrames;
  }

  reset(): void {
    this.silentFor = Infinity;
  }

  /** Takes the input of a step, before it is treated. */
  measureInput(input: StereoBlock): void {
    this.silentFor = isAudible(input) ? 0 : this.silentFor + STEP_FRAMES;
  }

  /** Takes what a step gave, for an effect that rings on by itself: a resonance or a loop. */
  measureOutput(wet: StereoBlock): void {
    if (isAudible(wet)) this.silentFor = 0;
  }
}

/** True when anything in a step lies above -120 dBFS. */
export function isAudible({ left, right }: StereoBlock): boolean {
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    if (
      left[i]! > SILENCE_THRESHOLD ||
      left[i]! < -SILENCE_THRESHOLD ||
      right[i]! > SILENCE_THRESHOLD ||
      right[i]! < -SILENCE_THRESHOLD
    )
      return true;
  }
  return false;
}
