import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { chopParams } from './params';
import { ChopVoice } from './voice';

const create = (sampleRate: number): HoldProcessor => new HoldProcessor(sampleRate, () => new ChopVoice(sampleRate));

export const chopImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: chopParams, values, context }),
};
