import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { stutterParams } from './params';
import { StutterVoice } from './voice';

const create = (sampleRate: number): HoldProcessor => new HoldProcessor(sampleRate, () => new StutterVoice(sampleRate));

export const stutterImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: stutterParams, values, context }),
};
