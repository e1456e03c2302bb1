import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';

/** -120 dBFS. */
const SILENCE_THRESHOLD = 1e-6;

/**
 * Detects that an effect has rung out: its input, and its output where that is measured, have been below -120 dBFS for
 * as long as a sound can stay inside the effect.
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

  /** Measures the input of a step, before it is processed. */
  measureInput(input: StereoBlock): void {
    this.silentFor = isAudible(input) ? 0 : this.silentFor + STEP_FRAMES;
  }

  /** Measures the output of a step, for an effect with a resonance or a feedback loop. */
  measureOutput(wet: StereoBlock): void {
    if (isAudible(wet)) this.silentFor = 0;
  }
}

/** True when any sample of a block exceeds -120 dBFS. */
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
