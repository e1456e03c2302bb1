import type { EffectImplementation } from '../implementation';
import { partialsPicture } from '../partialsPicture';
import { shifterParams } from './params';
import { ShifterProcessor } from './processor';

const create = (sampleRate: number): ShifterProcessor => new ShifterProcessor(sampleRate);

/** A note with harmonics, whose ratios a shift changes. */
const NOTE = {
  words: 'a note of 220 Hz with its harmonics',
  tones: [1, 2, 3, 4, 5, 6].map((n) => ({ hz: 220 * n, level: 0.25 / n })),
};

export const shifterImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) =>
    partialsPicture({ create, params: shifterParams, values: { ...values, feedback: 0, apart: 0 }, context }, NOTE),
};
