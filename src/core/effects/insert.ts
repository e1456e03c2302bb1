import { STEP_FRAMES } from '../dsp/blocks';
import { onePoleCoefficient } from '../dsp/onePole';
import { SilenceDetector } from './silenceDetector';

/** Base of effects without feedback: their tail is no longer than their memory, and they have no guard. */
export abstract class Insert {
  protected readonly quiet: SilenceDetector;
  /** Smoothing coefficient of a switch per step. */
  protected readonly share: number;

  /** @param memorySeconds time for which a sound stays inside  @param switchSeconds approximate time of a switch */
  constructor(
    protected readonly sampleRate: number,
    memorySeconds: number,
    switchSeconds: number,
  ) {
    this.quiet = new SilenceDetector(memorySeconds, sampleRate);
    this.share = onePoleCoefficient(switchSeconds, STEP_FRAMES, sampleRate);
  }

  get silent(): boolean {
    return this.quiet.silent;
  }

  takeGuardGain(): number {
    return 1;
  }
}
