import { implementHold } from '../hold/implement';
import { cloudParams } from './params';
import { CloudVoice } from './voice';

export const cloudImplementation = implementHold(cloudParams, (sampleRate) => new CloudVoice(sampleRate));
