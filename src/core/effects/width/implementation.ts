import type { EffectImplementation } from '../implementation';
import { imagePicture } from '../imagePicture';
import { widthParams } from './params';
import { WidthProcessor } from './processor';

const create = (sampleRate: number): WidthProcessor => new WidthProcessor(sampleRate);

export const widthImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => imagePicture({ create, params: widthParams, values, context }),
};
