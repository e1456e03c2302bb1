import type { EffectImplementation } from '../implementation';
import { pictureOfReverb } from './picture';
import { ReverbProcessor } from './processor';

export const reverbImplementation: EffectImplementation = {
  createProcessor: (sampleRate) => new ReverbProcessor(sampleRate),
  picture: pictureOfReverb,
};
