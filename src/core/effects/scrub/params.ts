import { choice, figure, ratio, time } from '../../params/make';
import type { Params } from '../../params/param';
import { holdParams } from '../hold/params';

export const CUTS = ['off', 'on'] as const;

export const scrubParams = {
  ...holdParams,
  place: ratio({
    label: 'Place',
    group: 'Head',
    hint: 'Where the head is in what was caught: at the right the moment at which you pressed.',
    initial: 1,
    smoothingSeconds: 0,
  }),
  window: time({
    label: 'Caught',
    group: 'Head',
    hint: 'How much of what has just passed lies under the finger.',
    min: 100,
    max: 16_000,
    initial: '1 bar',
  }),
  inertia: figure({
    label: 'Inertia',
    group: 'Head',
    hint: 'How slowly the head follows the finger: heavy heads glide.',
    unit: 'ms',
    min: 5,
    max: 1000,
    initial: 30,
    taper: { kind: 'log' },
  }),
  cut: choice({
    label: 'Gate',
    group: 'Head',
    hint: 'Opens and shuts on the beat while you scrub.',
    initial: 'off',
    options: [
      { id: 'off', label: 'off' },
      { id: 'on', label: 'on' },
    ],
  }),
  cutEvery: time({
    label: 'Gate every',
    group: 'Head',
    hint: 'From one opening to the next; it is shut for half of it.',
    min: 20,
    max: 4000,
    initial: '1/8',
  }),
} satisfies Params;
