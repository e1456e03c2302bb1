import type { LoudnessMatcher } from './matcher';
import type { MixRuns } from './mixRuns';
import type { RunningSlot } from './slot';

/** What every channel and effect of one engine looks at in a step. */
export interface Scene {
  readonly sampleRate: number;
  /** Where its runs lie, and what is done with each. */
  readonly runs: MixRuns;
  /** Place in the piece. */
  seconds: number;
  /** Seconds in which, at the tempo of this place, as many beats go by as have gone by to here. */
  pulseSeconds: number;
  /** Makes the effect that is judged as loud as what enters it. */
  readonly matcher: LoudnessMatcher;
  matched: RunningSlot | null;
}
