import { implementHold } from '../hold/implement';
import { scrubParams } from './params';
import { ScrubVoice } from './voice';

export const scrubImplementation = implementHold(scrubParams, (sampleRate) => new ScrubVoice(sampleRate));
