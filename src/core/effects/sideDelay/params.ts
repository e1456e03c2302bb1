import { choice, figure, toggle } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const sideDelayParams = {
  ...WHOLLY_WET_LINEAR,
  side: choice({
    label: 'Later side',
    group: 'Side',
    hint: 'The side that comes later: the sound leans to the other.',
    initial: 'right',
    options: [
      { id: 'left', label: 'left' },
      { id: 'right', label: 'right' },
    ],
  }),
  time: figure({
    label: 'Time',
    group: 'Side',
    hint: 'Under 1 ms moves the sound aside, 10 to 30 ms makes it wide, more is heard as a second hit.',
    unit: 'ms',
    min: 0,
    max: 60,
    initial: 15,
    smoothingSeconds: 0.05,
  }),
  level: figure({
    label: 'Level',
    group: 'Side',
    hint: 'Level of the later side, to bring the weight back to the middle.',
    unit: 'db',
    min: -24,
    max: 12,
    initial: 0,
    notches: [0],
  }),
  monoSafe: toggle({
    mutesOnChange: true,
    label: 'Mono-safe',
    group: 'Side',
    hint: 'Both sides together give the sound as it was, without the comb that a delay makes in mono.',
    initial: false,
  }),
} satisfies Params;
