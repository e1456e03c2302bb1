import { figure, ratio, time } from '../../params/make';
import type { Params } from '../../params/param';
import { holdParams } from '../hold/params';

export const cloudParams = {
  ...holdParams,
  density: figure({
    label: 'Density',
    group: 'Grains',
    hint: 'How many grains begin in a second: from drops to a stream.',
    unit: 'hz',
    min: 2,
    max: 120,
    initial: 30,
    taper: { kind: 'log' },
  }),
  size: time({
    label: 'Size',
    group: 'Grains',
    hint: 'How long each grain is: short ones patter, long ones flow.',
    min: 10,
    max: 1000,
    initial: 160,
  }),
  scatter: time({
    label: 'Scatter',
    group: 'Grains',
    hint: 'How far back from the moment at which you pressed grains are taken.',
    min: 1,
    max: 8000,
    initial: '1/4',
  }),
  pitch: figure({
    label: 'Pitch',
    group: 'Grains',
    hint: 'How much higher or lower the grains are than the sound was.',
    unit: 'semitones',
    min: -24,
    max: 24,
    initial: 0,
    notches: [-12, -7, 0, 7, 12],
  }),
  spread: ratio({ label: 'Spread', group: 'Grains', hint: 'How far grains are placed to the sides.', initial: 0.5 }),
  backwards: ratio({ label: 'Backwards', group: 'Grains', hint: 'How many grains run in reverse.', initial: 0 }),
  feedback: ratio({
    label: 'Feedback',
    group: 'Grains',
    hint: 'How much of the cloud is fed into itself: more drifts farther from what it was made of.',
    initial: 0,
  }),
} satisfies Params;
