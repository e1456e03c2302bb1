import type { LoudnessMatcher } from './matcher';
import type { BlockMixer } from './blockMixer';

/** What every channel and effect of one engine looks at in a step. */
export interface EngineContext {
  readonly sampleRate: number;
  /** Where its runs lie, and what is done with each. */
  readonly runs: BlockMixer;
  /** Place in the piece. */
  seconds: number;
  /** Seconds in which, at the tempo of this place, as many beats go by as have gone by to here. */
  pulseSeconds: number;
  /** Brings the effect that is compared to the loudness of what enters it. */
  readonly matcher: LoudnessMatcher;
  /** That effect; null while nothing is compared. */
  matched: object | null;
}
