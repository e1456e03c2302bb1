import { choice, figure, frequency, rate } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const MAX_STAGES = 12;

export const phaserParams = {
  ...WHOLLY_WET_LINEAR,
  stages: figure({
    mutesOnChange: true,
    label: 'Stages',
    group: 'Comb',
    hint: 'Two stages make one notch; more notches sound richer, nearly vocal.',
    unit: 'count',
    min: 2,
    max: MAX_STAGES,
    initial: 6,
    notches: [2, 4, 6, 8, 10, 12],
    smoothingSeconds: 0,
  }),
  centre: frequency({
    label: 'Centre',
    group: 'Comb',
    hint: 'Where the notches gather: low growls, high is airy.',
    min: 60,
    max: 8000,
    initial: 700,
  }),
  feedback: figure({
    label: 'Feedback',
    group: 'Comb',
    hint: 'Sharpens the peaks between the notches; left of the middle it turns them over.',
    unit: 'ratio',
    min: -0.95,
    max: 0.95,
    initial: 0,
    notches: [0],
  }),
  depth: figure({
    label: 'Sweep',
    group: 'Modulation',
    hint: 'How far the notches travel to each side: little colours, much sweeps.',
    unit: 'octaves',
    min: 0,
    max: 3,
    initial: 1.2,
    offAt: 'min',
  }),
  rate: rate({
    label: 'Rate',
    group: 'Modulation',
    hint: 'How fast they travel: slow swirls, fast wobbles.',
    initial: 0.3,
  }),
  phase: figure({
    label: 'Side phase',
    group: 'Sides',
    hint: 'How far the right side’s sweep runs behind the left’s: more is wider, and turns round you.',
    unit: 'degrees',
    min: 0,
    max: 180,
    initial: 0,
    notches: [0, 90, 180],
  }),
  sides: choice({
    mutesOnChange: true,
    label: 'Sides',
    group: 'Sides',
    hint: 'Which sides it acts on: one alone makes a mono part wide.',
    initial: 'both',
    options: [
      { id: 'both', label: 'both' },
      { id: 'left', label: 'left' },
      { id: 'right', label: 'right' },
    ],
  }),
} satisfies Params;
