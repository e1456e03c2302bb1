import type { Params } from '../../params/param';
import type { EffectImplementation } from '../implementation';
import type { History } from './history';
import { holdPicture } from './picture';
import { HoldProcessor } from './processor';
import type { HoldVoice } from './voice';

/** Processor and picture of a hold. @param makeVoice creates a voice that reads the given history */
export function implementHold(
  params: Params,
  makeVoice: (sampleRate: number, history: History) => HoldVoice,
): EffectImplementation {
  const create = (sampleRate: number): HoldProcessor =>
    new HoldProcessor(sampleRate, (history) => makeVoice(sampleRate, history));
  return {
    createProcessor: create,
    picture: (values, context) => holdPicture({ create, params, values, context }),
  };
}
