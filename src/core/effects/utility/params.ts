import { figure, toggle } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const utilityParams = {
  ...WHOLLY_WET_LINEAR,
  gain: figure({
    label: 'Gain',
    group: 'Level',
    hint: 'Level of all that passes.',
    unit: 'db',
    min: -60,
    max: 24,
    initial: 0,
    notches: [0],
  }),
  pan: figure({
    label: 'Pan',
    group: 'Level',
    hint: 'Moves both sides towards one of them.',
    unit: 'pan',
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  turnLeft: toggle({
    label: 'Invert left',
    group: 'Sides',
    hint: 'Turns the left side’s wave over: what both share is heard beside you, and cancels in mono.',
    initial: false,
  }),
  turnRight: toggle({
    label: 'Invert right',
    group: 'Sides',
    hint: 'Turns the right side’s wave over: what both share is heard beside you, and cancels in mono.',
    initial: false,
  }),
  mono: toggle({ label: 'Mono', group: 'Sides', hint: 'Both sides as one, in the middle.', initial: false }),
  dcCut: toggle({
    label: 'DC cut',
    group: 'Sides',
    hint: 'Takes away an offset, which eats room and clicks at edits.',
    initial: false,
  }),
} satisfies Params;
