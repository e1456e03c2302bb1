import { defineEffect, type Preset } from '../define';
import { limiterParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Only catches what would clip.', values: { ceiling: 0 } },
  {
    id: 'quayWall',
    name: 'Quay wall',
    purpose: 'Catches the odd peak of a piece before it is written.',
    values: { ceiling: -1, release: 160 },
  },
  {
    id: 'highTide',
    name: 'High tide',
    purpose: 'Lifts a whole piece against the ceiling.',
    values: { gain: 5, ceiling: -1, release: 220, lookAhead: 4 },
  },
  {
    id: 'holdReturn',
    name: 'Hold the return',
    purpose: 'Keeps an echo or reverb that is ridden hard from leaping out.',
    values: { ceiling: -9, release: 300, lookAhead: 3 },
  },
  {
    id: 'brace',
    name: 'Brace',
    purpose: 'Short and firm, for drums and crates.',
    values: { gain: 4, ceiling: -3, release: 40, lookAhead: 1 },
  },
  {
    id: 'stream',
    name: 'Under the bridge',
    purpose: 'A level that streaming services pass unchanged.',
    values: { gain: 2, ceiling: -2, release: 250 },
  },
  {
    id: 'flat',
    name: 'Flat calm',
    purpose: 'Very firm and slow: everything at one level, for beds.',
    values: { gain: 15, ceiling: -10, release: 800, lookAhead: 8 },
  },
];

export const limiter = defineEffect({
  id: 'limiter',
  name: 'Limiter',
  family: 'tone',
  purpose: 'A ceiling that no peak goes above, also between the samples.',
  searchWords: 'brickwall ceiling loud maximise peak true peak clip',
  params: limiterParams,
  presets,
  headline: ['ceiling', 'gain'],
});
