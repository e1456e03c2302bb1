import type { Params } from '../../params/param';
import type { EffectImplementation } from '../implementation';
import { holdPicture } from './picture';
import { HoldProcessor } from './processor';
import type { HoldVoice } from './voice';

/** What makes a hold sound and draws it, from its voice. */
export function implementHold(params: Params, makeVoice: (sampleRate: number) => HoldVoice): EffectImplementation {
  const create = (sampleRate: number): HoldProcessor => new HoldProcessor(sampleRate, () => makeVoice(sampleRate));
  return {
    createProcessor: create,
    picture: (values, context) => holdPicture({ create, params, values, context }),
  };
}
