import type { EffectImplementation } from '../implementation';
import { responsePicture } from '../responsePicture';
import { widenerParams } from './params';
import { WidenerProcessor } from './processor';

const create = (sampleRate: number): WidenerProcessor => new WidenerProcessor(sampleRate);

export const widenerImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => responsePicture({ create, params: widenerParams, values, context }, []),
};
