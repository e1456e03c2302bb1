import { implementHold } from '../hold/implement';
import { chopParams } from './params';
import { ChopVoice } from './voice';

export const chopImplementation = implementHold(chopParams, (sampleRate) => new ChopVoice(sampleRate));
