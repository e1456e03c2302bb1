import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { reorderParams } from './params';
import { ReorderVoice } from './voice';

const create = (sampleRate: number): HoldProcessor => new HoldProcessor(sampleRate, () => new ReorderVoice(sampleRate));

export const reorderImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: reorderParams, values, context }),
};
