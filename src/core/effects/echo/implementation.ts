import type { EffectImplementation } from '../implementation';
import { pictureOfEcho } from './picture';
import { EchoProcessor } from './processor';

export const echoImplementation: EffectImplementation = {
  createProcessor: (sampleRate) => new EchoProcessor(sampleRate),
  picture: pictureOfEcho,
};
