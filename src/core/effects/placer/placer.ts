import { defineEffect, type Preset } from '../define';
import { placerFields } from './fields';
import { placerParams } from './params';
import { whenGroup } from '../visibleWhen';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Straight ahead at one metre, without air, floor or walls.',
    values: { direction: 0, distance: 1, airDamping: 0, reflections: 0 },
  },
  {
    id: 'starboard',
    name: 'To starboard',
    purpose: 'Half right and near, firm in headphones.',
    values: { direction: 55, distance: 1.4 },
  },
  {
    id: 'behind',
    name: 'Behind you',
    purpose: 'A call from the back of the pier.',
    values: { direction: 195, distance: 5, outerEar: 0.6, distanceLevel: 0.4, reflections: 0.4, trim: 1.4 },
  },
  {
    id: 'circling',
    name: 'Circling gull',
    purpose: 'Flies round you once in two bars.',
    searchWords: 'rotary orbit 8D',
    values: {
      path: 'circle',
      distance: 4,
      height: 3,
      outerEar: 0.6,
      distanceLevel: 0.4,
      rate: '2 bars',
      reflections: 0.15,
      trim: 1.4,
    },
  },
  {
    id: 'passing',
    name: 'Passing ferry',
    purpose: 'Comes, passes and goes, with the pitch that falls.',
    values: { path: 'eight', direction: 0, distance: 14, rate: 0.05, doppler: true, distanceLevel: 0.4, trim: 1.4 },
  },
  {
    id: 'lantern',
    name: 'Swinging lantern',
    purpose: 'To and fro before you, in time.',
    values: { path: 'swing', direction: 0, extent: 70, distance: 2, distanceLevel: 0.7, rate: '1 bar' },
  },
  {
    id: 'wideAhead',
    name: 'Wide ahead',
    purpose: 'Both sides of a part spread before you at a distance.',
    values: { direction: 0, distance: 3, distanceLevel: 0.4, spread: 90, reflections: 0.35, trim: 1.3 },
  },
];

export const placer = defineEffect({
  id: 'placer',
  name: 'Placer',
  family: 'space',
  purpose: 'Puts a sound at a place around you, near or far, and moves it along a path.',
  searchWords: 'binaural 3D HRTF orbit rotary distance headphones spatial surround pan doppler',
  params: placerParams,
  presets,
  headline: ['direction', 'distance'],
  visibleWhen: whenGroup(placerParams, 'Drawn path', { param: 'path', is: 'drawn' }),
  fields: placerFields,
});
