import { implementHold } from '../hold/implement';
import { reorderParams } from './params';
import { ReorderVoice } from './voice';

export const reorderImplementation = implementHold(reorderParams, (sampleRate) => new ReorderVoice(sampleRate));
