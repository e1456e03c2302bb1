import type { EffectImplementation } from '../implementation';
import { chorusPicture } from './picture';
import { ChorusProcessor } from './processor';

export const chorusImplementation: EffectImplementation = {
  createProcessor: (sampleRate) => new ChorusProcessor(sampleRate),
  picture: chorusPicture,
};
