import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { slowMotionParams } from './params';
import { SlowMotionVoice } from './voice';

const create = (sampleRate: number): HoldProcessor =>
  new HoldProcessor(sampleRate, () => new SlowMotionVoice(sampleRate));

export const slowMotionImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: slowMotionParams, values, context }),
};
