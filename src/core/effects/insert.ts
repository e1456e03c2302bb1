import { STEP_FRAMES } from '../dsp/blocks';
import { onePoleCoefficient } from '../dsp/onePole';
import { SilenceDetector } from './silenceDetector';

/** What effects without a loop have alike: they ring no longer than they remember, and have nothing to guard. */
export abstract class Insert {
  protected readonly quiet: SilenceDetector;
  /** Share of its way that a switch goes in a step. */
  protected readonly share: number;

  /** @param memorySeconds how long a sound stays inside  @param switchSeconds how long a switch takes, about */
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
