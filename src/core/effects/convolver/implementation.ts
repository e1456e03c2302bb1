import type { EffectImplementation } from '../implementation';
import { impulsePicture } from './impulsePicture';
import { ConvolverProcessor } from './processor';
import { roomPicture } from './roomPicture';

const picture: EffectImplementation['picture'] = (values, context, own) =>
  values.source === 'room' ? roomPicture(values, context) : impulsePicture(values, context, own);

export const convolverImplementation: EffectImplementation = {
  createProcessor: (sampleRate) => new ConvolverProcessor(sampleRate),
  picture,
};
