import { defineEffect, type Preset } from '../define';
import { widenerParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Leaves the sound as it is until there is an amount.',
    values: { amount: 0 },
  },
  {
    id: 'spreadNet',
    name: 'Spread net',
    purpose: 'Opens a mono synth or guitar, safe in mono.',
    values: { amount: 0.7, delay: 12 },
  },
  {
    id: 'airOverDeck',
    name: 'Air over the deck',
    purpose: 'A little width over a voice.',
    values: { amount: 0.28, delay: 7.5 },
  },
  {
    id: 'twoHulls',
    name: 'Two hulls',
    purpose: 'Two close takes, left and right; thinner in mono.',
    values: { method: 'offset', amount: 0.8, delay: 17, monoSafe: false },
  },
  {
    id: 'safeHulls',
    name: 'Two hulls, lashed',
    purpose: 'The same, made to fold into mono unharmed.',
    searchWords: 'mono safe',
    values: { method: 'offset', amount: 0.8, delay: 17 },
  },
  {
    id: 'hollow',
    name: 'Hollow wood',
    purpose: 'Very short and strong: a tube around the sound.',
    values: { amount: 0.9, delay: 2.2 },
  },
  {
    id: 'farApart',
    name: 'Far apart',
    purpose: 'As wide as it gets, for beds behind the rest.',
    values: { amount: 1, delay: 29 },
  },
];

export const widener = defineEffect({
  id: 'widener',
  name: 'Widener',
  family: 'space',
  purpose: 'Makes one signal wide, by combs that complete each other or by two close offsets.',
  searchWords: 'widen wide stereo mono to stereo pseudo stereo decorrelate haas',
  params: widenerParams,
  presets,
  headline: ['method', 'amount'],
});
