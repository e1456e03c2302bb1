import { makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import type { History } from './history';

/** The part of a step that voices write, the same object refilled. */
export class HoldStep {
  /** The dry sound. */
  input: StereoBlock = makeStereoBlock();
  /** First sample of the step, in frames since the processor's own beginning. */
  first = 0;
  /** What is written: [from, to) of the step. */
  from = 0;
  to = 0;
  values: Float64Array = new Float64Array(0);

  constructor(readonly history: History) {}
}

/**
 * Playback of one hold, from its start on. The processor has several, so that one fades out while the next has begun.
 */
export interface HoldVoice {
  /**
   * Starts.
   * @param at frames since the processor's own beginning  @param position of the present input in the history
   * @param place in samples from the start of the piece; random choices start from it, so that they repeat there
   */
  begin(at: number, position: number, history: History, values: Float64Array, place: number): void;
  /** Writes its part of a step. */
  render(out: StereoBlock, step: HoldStep): void;
}
