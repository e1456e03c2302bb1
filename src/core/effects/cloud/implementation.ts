import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { cloudParams } from './params';
import { CloudVoice } from './voice';

const create = (sampleRate: number): HoldProcessor => new HoldProcessor(sampleRate, () => new CloudVoice(sampleRate));

export const cloudImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: cloudParams, values, context }),
};
