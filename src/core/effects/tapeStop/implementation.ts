import { implementHold } from '../hold/implement';
import { tapeStopParams } from './params';
import { TapeStopVoice } from './voice';

export const tapeStopImplementation = implementHold(tapeStopParams, (sampleRate) => new TapeStopVoice(sampleRate));
