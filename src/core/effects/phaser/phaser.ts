import { defineEffect, type Preset } from '../define';
import { phaserParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Four stages that stand still.', values: { stages: 4, depth: 0 } },
  {
    id: 'slowSwell',
    name: 'Slow swell',
    purpose: 'Long soft sweep under pads.',
    values: { stages: 6, rate: '4 bars', depth: 1.6 },
  },
  {
    id: 'oneShore',
    name: 'One shore',
    purpose: 'On the right side alone: opens a mono part.',
    values: { stages: 8, sides: 'right', rate: 0.18, depth: 1.2 },
  },
  {
    id: 'oilSheen',
    name: 'Oil sheen',
    purpose: 'Many sharp notches that glide over keys and guitar.',
    values: { stages: 12, feedback: 0.55, rate: 0.22, depth: 1 },
  },
  {
    id: 'chop',
    name: 'Chop',
    purpose: 'Quick and hollow, in eighths.',
    values: { stages: 4, feedback: -0.6, rate: '1/8', depth: 0.9, centre: 1100 },
  },
  {
    id: 'apart',
    name: 'Tides apart',
    purpose: 'The sides sweep against each other.',
    values: { stages: 6, phase: 180, rate: 0.12, depth: 1.5, feedback: 0.25 },
  },
  {
    id: 'vowel',
    name: 'Humming wall',
    purpose: 'Stands still and gives a part a throat; ride the centre.',
    values: { stages: 8, depth: 0, feedback: 0.7, centre: 620 },
  },
];

export const phaser = defineEffect({
  id: 'phaser',
  name: 'Phaser',
  family: 'modulation',
  purpose: 'Notches that travel through the sound, on both sides or on one alone.',
  searchWords: 'LFO phasing sweep notch allpass swirl',
  params: phaserParams,
  presets,
  headline: ['stages', 'centre'],
});
