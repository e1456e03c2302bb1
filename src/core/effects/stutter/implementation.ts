import { implementHold } from '../hold/implement';
import { stutterParams } from './params';
import { StutterVoice } from './voice';

export const stutterImplementation = implementHold(stutterParams, (sampleRate) => new StutterVoice(sampleRate));
