import { defineEffect, type Preset } from '../define';
import { sideDelayParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Both sides at once until there is a time.', values: { time: 0 } },
  {
    id: 'widePlank',
    name: 'Wide plank',
    purpose: 'Opens a mono part to both sides.',
    values: { time: 16, level: 1.5 },
  },
  {
    id: 'leanLeft',
    name: 'Lean to port',
    purpose: 'Moves a part left without lowering the right.',
    values: { time: 0.45, side: 'right' },
  },
  {
    id: 'leanRight',
    name: 'Lean to starboard',
    purpose: 'Moves a part right without lowering the left.',
    values: { time: 0.45, side: 'left' },
  },
  {
    id: 'lashed',
    name: 'Wide, lashed',
    purpose: 'Wide in stereo and whole in mono.',
    values: { time: 22, monoSafe: true, level: 6, mix: 0.5 },
  },
  {
    id: 'twoJetties',
    name: 'Two jetties',
    purpose: 'Wide enough to be heard as two, for pads and guitar.',
    values: { time: 38 },
  },
  {
    id: 'flam',
    name: 'Flam',
    purpose: 'Two hits close together, one from each side.',
    values: { time: 55, level: -2 },
  },
];

export const sideDelay = defineEffect({
  id: 'sideDelay',
  name: 'Side delay',
  family: 'delay',
  purpose: 'One side a little later than the other.',
  searchWords: 'haas precedence widen stereo wide mono slap',
  params: sideDelayParams,
  presets,
  headline: ['side', 'time'],
});
