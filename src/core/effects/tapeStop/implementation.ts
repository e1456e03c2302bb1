import type { EffectImplementation } from '../implementation';
import { holdPicture } from '../hold/picture';
import { HoldProcessor } from '../hold/processor';
import { tapeStopParams } from './params';
import { TapeStopVoice } from './voice';

const create = (sampleRate: number): HoldProcessor =>
  new HoldProcessor(sampleRate, () => new TapeStopVoice(sampleRate));

export const tapeStopImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => holdPicture({ create, params: tapeStopParams, values, context }),
};
