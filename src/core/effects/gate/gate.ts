import { defineEffect, type Preset } from '../define';
import { gateParams, STEP_IDS } from './params';
import type { Condition } from '../visibleWhen';

const steps = (...heights: readonly number[]): Record<string, number> =>
  Object.fromEntries(STEP_IDS.map((id, i) => [id, heights[i] ?? 0]));

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Every second sixteenth.', values: {} },
  {
    id: 'oarStroke',
    name: 'Oar stroke',
    purpose: 'Three and three and two: pads that row along.',
    values: { rate: '1/16', length: 8, smooth: 12, ...steps(1, 0, 0, 1, 0, 0, 1, 0) },
  },
  {
    id: 'sluice',
    name: 'Sluice',
    purpose: 'Cut hard and short in sixteenths with accents.',
    values: {
      rate: '1/16',
      length: 16,
      open: 0.5,
      smooth: 2,
      trim: 1.25,
      ...steps(1, 0.4, 0.7, 0.4, 1, 0.4, 0.7, 0.9, 1, 0.4, 0.7, 0.4, 1, 0.7, 0.9, 0.4),
    },
  },
  {
    id: 'limp',
    name: 'Limp',
    purpose: 'Swung eighths under a straight beat.',
    values: { rate: '1/8', length: 4, swing: 0.33, open: 0.6, smooth: 10, ...steps(1, 0.7, 1, 0.7) },
  },
  {
    id: 'faster',
    name: 'Spinning up',
    purpose: 'Ride its step to the right at the end of a riser.',
    values: { rate: '1/8', length: 2, open: 0.5, smooth: 4, ...steps(1, 1) },
  },
  {
    id: 'halfShut',
    name: 'Half shut',
    purpose: 'Only bows by a few decibels: movement that is felt.',
    values: { rate: '1/8', length: 8, depth: 0.5, smooth: 30, ...steps(1, 0.3, 0.8, 0.3, 1, 0.3, 0.6, 0.9) },
  },
  {
    id: 'shutDoor',
    name: 'Shut the door',
    purpose: 'By its level: cuts the tail of a big reverb.',
    values: { mode: 'level', threshold: -34, hold: 90, release: 60 },
  },
  {
    id: 'quietRoom',
    name: 'Quiet room',
    purpose: 'By its level: takes hum and breath away between words.',
    values: { mode: 'level', threshold: -48, hold: 120, release: 300, depth: 0.9 },
  },
];

const inPattern: Condition = { param: 'mode', isNot: 'level' };
const byLevel: Condition = { param: 'mode', isNot: 'pattern' };

export const gate = defineEffect({
  id: 'gate',
  name: 'Gate',
  family: 'tone',
  purpose: 'Opens and shuts in a pattern on the grid, or by the sound’s own level.',
  searchWords: 'chop trance gate noise gate rhythm pulse sidechain stutter',
  params: gateParams,
  presets,
  headline: ['mode', 'rate'],
  visibleWhen: {
    ...Object.fromEntries(['rate', 'length', 'open', 'swing'].map((id) => [id, [inPattern]])),
    ...Object.fromEntries(['threshold', 'hold', 'release'].map((id) => [id, [byLevel]])),
    ...Object.fromEntries(STEP_IDS.map((id, i) => [id, [inPattern, { param: 'length', atLeast: i + 1 }]])),
  },
});
