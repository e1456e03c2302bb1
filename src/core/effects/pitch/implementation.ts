import type { EffectImplementation } from '../implementation';
import { partialsPicture } from '../partialsPicture';
import { pitchParams } from './params';
import { PitchProcessor } from './processor';

const create = (sampleRate: number): PitchProcessor => new PitchProcessor(sampleRate);

/** A sung note: harmonics of 220 Hz under three formants, so that both pitch and formants can be seen to move. */
const FORMANTS = [
  [650, 120],
  [1080, 140],
  [2650, 260],
] as const;

const formantGainAt = (hz: number): number =>
  FORMANTS.reduce((sum, [centre, wide]) => sum + 1 / (1 + ((hz - centre) / wide) ** 2), 0.02);

const SUNG = {
  words: 'a sung note of 220 Hz',
  tones: Array.from({ length: 16 }, (_, i) => ({
    hz: 220 * (i + 1),
    level: (0.16 * formantGainAt(220 * (i + 1))) / Math.sqrt(i + 1),
  })),
  settleSeconds: 0.25,
};

export const pitchImplementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => partialsPicture({ create, params: pitchParams, values, context }, SUNG),
};
