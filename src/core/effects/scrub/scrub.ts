import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { scrubParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'A light head over the last bar.',
    values: { ...NEUTRAL },
  },
  {
    id: 'lightHand',
    name: 'Light hand',
    purpose: 'Follows at once: rubs over single words.',
    values: { window: '1/2', inertia: 12 },
  },
  {
    id: 'heavyWheel',
    name: 'Heavy wheel',
    purpose: 'Glides behind the finger and arrives late.',
    values: { inertia: 240, window: '2 bars' },
  },
  {
    id: 'beatUnderHand',
    name: 'Beat under the hand',
    purpose: 'One bar under the finger, caught on the bar.',
    values: { startsOn: '1/4', endsOn: '1/4' },
  },
  {
    id: 'cutAndRub',
    name: 'Cut and rub',
    purpose: 'Opens and shuts in eighths while you move.',
    values: { cut: 'on', startsOn: '1/8', endsOn: '1/8' },
  },
  {
    id: 'fastShutter',
    name: 'Fast shutter',
    purpose: 'Cut into thirty-seconds: stammers whatever you do.',
    values: { cut: 'on', cutEvery: '1/32', inertia: 18, startsOn: '1/16', endsOn: '1/16' },
  },
  {
    id: 'overTheSong',
    name: 'Over the song',
    purpose: 'Rubbed on top of what goes on.',
    values: { heard: 'blend', blend: 0.6, lowCut: 180, inertia: 20 },
  },
  {
    id: 'underWater',
    name: 'Rubbed under water',
    purpose: 'Dark and slow, over four bars.',
    values: { window: '4 bars', inertia: 400, highCut: 1400 },
  },
  {
    id: 'oneWord',
    name: 'One word',
    purpose: 'The last quarter only, as fine as a needle.',
    values: { window: '1/4', inertia: 8 },
  },
];

export const scrub = defineHold({
  id: 'scrub',
  name: 'Scrub',
  purpose: 'While it is held, a head goes over the last bar as the finger moves it.',
  searchWords: 'scratch vinyl turntable record jog',
  glyph: 'M4 10h14M30 10h14M24 4a6 6 0 1 0 .01 0',
  params: scrubParams,
  presets,
  headline: ['place', 'window'],
  visibleWhen: { cutEvery: [{ param: 'cut', is: 'on' }] },
});
