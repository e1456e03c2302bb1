import { defineEffect, type Preset } from '../define';
import { utilityParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Passes all as it is.', values: {} },
  { id: 'asOne', name: 'As one', purpose: 'Mono, to hear what a small speaker makes of it.', values: { mono: true } },
  {
    id: 'leftShore',
    name: 'Left shore',
    purpose: 'Wholly to the left, as one half of a wide pair.',
    values: { pan: -1, mono: true },
  },
  {
    id: 'rightShore',
    name: 'Right shore',
    purpose: 'Wholly to the right, as the other half.',
    values: { pan: 1, mono: true },
  },
  {
    id: 'turned',
    name: 'Turned over',
    purpose: 'Left upside down, for a cable or microphone that was.',
    values: { turnLeft: true },
  },
  { id: 'halfDown', name: 'Half down', purpose: 'Six decibels quieter into whatever follows.', values: { gain: -6 } },
  {
    id: 'steady',
    name: 'On an even keel',
    purpose: 'Takes an offset out before drive or a gate.',
    values: { dcCut: true },
  },
];

export const utility = defineEffect({
  id: 'utility',
  name: 'Utility',
  family: 'tone',
  purpose: 'Gain, pan, phase, mono and offset.',
  searchWords: 'gain trim mono invert polarity phase swap balance',
  params: utilityParams,
  presets,
  headline: ['gain', 'pan'],
});
