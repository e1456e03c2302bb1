import { figure, frequency, toggle } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const widthParams = {
  ...WHOLLY_WET_LINEAR,
  mid: figure({
    label: 'Mid',
    group: 'Width',
    hint: 'Level of what both sides have in common.',
    unit: 'db',
    min: -60,
    max: 12,
    initial: 0,
    notches: [0],
  }),
  side: figure({
    label: 'Side',
    group: 'Width',
    hint: 'Level of what makes them differ: at the left it is mono, at the right wide.',
    unit: 'db',
    min: -60,
    max: 12,
    initial: 0,
    notches: [0],
  }),
  bassMono: frequency({
    label: 'Mono below',
    group: 'Width',
    hint: 'Under this, both sides are one: keeps the bass firm.',
    min: 20,
    max: 500,
    initial: 20,
    offAt: 'min',
  }),
  sideLowCut: frequency({
    label: 'Side low cut',
    group: 'Width',
    hint: 'Thins the side gently from here down: the lows gather in the middle.',
    min: 20,
    max: 2000,
    initial: 20,
    offAt: 'min',
  }),
  weight: figure({
    label: 'Sides',
    group: 'Sides',
    hint: 'Leans the sound to the left or to the right.',
    unit: 'pan',
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  swap: toggle({ label: 'Swap', group: 'Sides', hint: 'Left goes right and right goes left.', initial: false }),
  mono: toggle({
    label: 'Mono',
    group: 'Sides',
    hint: 'Both sides as one: what a single loudspeaker will play.',
    initial: false,
  }),
} satisfies Params;
