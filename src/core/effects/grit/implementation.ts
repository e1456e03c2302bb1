import type { EffectImplementation } from '../implementation';
import { partialsPicture } from '../partialsPicture';
import { gritParams } from './params';
import { GritProcessor } from './processor';

const create = (sampleRate: number): GritProcessor => new GritProcessor(sampleRate);

export const gritImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) =>
    partialsPicture(
      { create, params: gritParams, values, context },
      { words: 'a tone of 1 kHz', tones: [{ hz: 1000, level: 0.5 }] },
    ),
};
