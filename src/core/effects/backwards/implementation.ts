import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { backwardsParams } from './params';
import { BackwardsVoice } from './voice';

const create = (sampleRate: number): HoldProcessor =>
  new HoldProcessor(sampleRate, () => new BackwardsVoice(sampleRate));

export const backwardsImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: backwardsParams, values, context }),
};
