import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { STEP_IDS } from '../gate/params';
import { chopParams } from './params';

const steps = (...heights: readonly number[]): Record<string, number> =>
  Object.fromEntries(STEP_IDS.map((id, i) => [id, heights[i] ?? 0]));

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Open at every step: all passes.',
    values: { ...NEUTRAL, ...steps(1, 1, 1, 1, 1, 1, 1, 1) },
  },
  {
    id: 'evenOars',
    name: 'Even oars',
    purpose: 'Sixteenths, on and off.',
    values: { startsOn: '1/16', endsOn: '1/16', ...steps(1, 0, 1, 0, 1, 0, 1, 0) },
  },
  {
    id: 'threeAgainst',
    name: 'Three against four',
    purpose: 'A step of three over a straight beat.',
    values: { length: 3, startsOn: '1/8', endsOn: '1/8', ...steps(1, 0, 0) },
  },
  {
    id: 'signalLamp',
    name: 'Signal lamp',
    purpose: 'Long, short, short: a call across the water.',
    values: { rate: '1/8', length: 8, startsOn: '1/8', endsOn: '1/4', ...steps(1, 1, 1, 0, 1, 0, 1, 0) },
  },
  {
    id: 'flutterSail',
    name: 'Fluttering sail',
    purpose: 'So fast that it turns into a buzz.',
    values: { rate: 24, length: 2, smooth: 4, startsOn: '1/16', endsOn: '1/16', ...steps(1, 0) },
  },
  {
    id: 'offBeats',
    name: 'Off the beat',
    purpose: 'Only what lies between the beats is left.',
    values: { rate: '1/8', length: 2, smooth: 8, startsOn: '1/4', endsOn: '1/4', ...steps(0, 1) },
  },
  {
    id: 'softSwell',
    name: 'Soft swell',
    purpose: 'Quarters that breathe rather than cut.',
    values: {
      rate: '1/4',
      length: 2,
      open: 0.6,
      smooth: 120,
      depth: 0.8,
      startsOn: '1/4',
      endsOn: '1/4',
      ...steps(1, 1),
    },
  },
  {
    id: 'limpingStep',
    name: 'Limping chop',
    purpose: 'Swung sixteenths, half as deep.',
    values: { swing: 0.33, depth: 0.6, startsOn: '1/8', endsOn: '1/8', ...steps(1, 0, 1, 1, 1, 0, 1, 0) },
  },
];

export const chop = defineHold({
  id: 'chop',
  name: 'Chop',
  purpose: 'While it is held, the sound opens and shuts in a pattern that begins with the hold.',
  searchWords: 'trance gate gate rhythm pulse helicopter',
  glyph: 'M4 16V4h9v12h8V4h9v12h8V4h6',
  params: chopParams,
  presets,
  headline: ['rate', 'length'],
});
