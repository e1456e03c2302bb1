import type { StereoBlock } from '../../dsp/blocks';
import type { History } from './history';

/**
 * What a kind of hold makes of the past, from one start on. The processor has several, so that one fades away while
 * the next has begun.
 */
export interface HoldVoice {
  /**
   * Begins.
   * @param at frames since the processor's own beginning  @param place in the history of the sound that comes in then
   */
  begin(at: number, place: number, history: History, values: Float64Array): void;
  /**
   * Writes [from, to) of a step.
   * @param input the sound as it is  @param first sample of the step, in frames since the processor's own beginning
   */
  render(
    out: StereoBlock,
    input: StereoBlock,
    history: History,
    first: number,
    from: number,
    to: number,
    values: Float64Array,
  ): void;
}
