import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { scrubParams } from './params';
import { ScrubVoice } from './voice';

const create = (sampleRate: number): HoldProcessor => new HoldProcessor(sampleRate, () => new ScrubVoice(sampleRate));

export const scrubImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: scrubParams, values, context }),
};
