import type { EffectImplementation } from '../implementation';
import { wavePicture } from '../wavePicture';
import { crushParams } from './params';
import { CrushProcessor } from './processor';

const create = (sampleRate: number): CrushProcessor => new CrushProcessor(sampleRate);

export const crushImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) =>
    wavePicture(
      { create, params: crushParams, values: { ...values, wobble: 0 }, context },
      { hz: 200, level: 0.7, settleTurns: 300 },
    ),
};
