import { implementHold } from '../hold/implement';
import { slowMotionParams } from './params';
import { SlowMotionVoice } from './voice';

export const slowMotionImplementation = implementHold(
  slowMotionParams,
  (sampleRate, history) => new SlowMotionVoice(sampleRate, history),
);
