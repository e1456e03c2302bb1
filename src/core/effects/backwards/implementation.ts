import { implementHold } from '../hold/implement';
import { backwardsParams } from './params';
import { BackwardsVoice } from './voice';

export const backwardsImplementation = implementHold(backwardsParams, (sampleRate) => new BackwardsVoice(sampleRate));
