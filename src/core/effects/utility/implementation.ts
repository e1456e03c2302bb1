import type { EffectImplementation } from '../implementation';
import { imagePicture } from '../imagePicture';
import { utilityParams } from './params';
import { UtilityProcessor } from './processor';

const create = (sampleRate: number): UtilityProcessor => new UtilityProcessor(sampleRate);

export const utilityImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => imagePicture({ create, params: utilityParams, values, context }),
};
