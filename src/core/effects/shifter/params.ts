import { figure, ratio } from '../../params/make';
import { LOG } from '../../params/taper';
import type { Params } from '../../params/param';
import { WHOLLY_WET } from '../common';

export const shifterParams = {
  ...WHOLLY_WET,
  shift: figure({
    label: 'Shift',
    group: 'Shift',
    hint: 'By how many hertz every tone of the sound is moved: a few beat, many clang.',
    unit: 'hz',
    min: 0.05,
    max: 5000,
    taper: LOG,
    initial: 30,
  }),
  blend: figure({
    label: 'Down or up',
    group: 'Shift',
    hint: 'At the right every tone goes up, at the left down; in the middle both, as a ring modulator does.',
    unit: 'pan',
    ends: ['down', 'up'],
    min: -1,
    max: 1,
    initial: 1,
    notches: [-1, 0, 1],
  }),
  apart: figure({
    label: 'Sides apart',
    group: 'Shift',
    hint: 'By how much more the right side is shifted than the left: slow wide beating.',
    unit: 'hz',
    min: 0,
    max: 20,
    initial: 0,
    offAt: 'min',
  }),
  feedback: ratio({
    label: 'Feedback',
    group: 'Spiral',
    hint: 'Shifts what was shifted again: rising or falling spirals.',
    max: 0.9,
    initial: 0,
  }),
  delay: figure({
    label: 'Delay',
    group: 'Spiral',
    hint: 'How long each turn of the spiral takes.',
    unit: 'ms',
    min: 1.5,
    max: 500,
    taper: LOG,
    initial: 20,
    smoothingSeconds: 0.1,
  }),
} satisfies Params;
