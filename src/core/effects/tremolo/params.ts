import { LFO_SHAPES } from '../../dsp/lfo';
import { choice, figure, rate, ratio } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const tremoloParams = {
  ...WHOLLY_WET_LINEAR,
  rate: rate({ label: 'Rate', group: 'Modulation', hint: 'How fast the level comes and goes.', initial: '1/8' }),
  depth: ratio({
    label: 'Depth',
    group: 'Modulation',
    hint: 'How far down it goes: at the right to silence.',
    initial: 0.6,
  }),
  shape: choice({
    mutesOnChange: true,
    label: 'Shape',
    group: 'Modulation',
    hint: 'Soft as a sine, or cut as a square; fall and rise lean to one side.',
    initial: 'sine',
    options: LFO_SHAPES.map((id) => ({ id, label: id })),
  }),
  phase: figure({
    label: 'Side phase',
    group: 'Sides',
    hint: '0° moves both sides together; 180° moves the sound from side to side.',
    unit: 'degrees',
    min: 0,
    max: 180,
    initial: 0,
    notches: [0, 90, 180],
  }),
  start: figure({
    label: 'Start',
    group: 'Modulation',
    hint: 'Where in its round it stands at the start of the piece: which beats are loud.',
    unit: 'degrees',
    min: 0,
    max: 360,
    initial: 90,
    notches: [0, 90, 180, 270],
  }),
  sides: choice({
    mutesOnChange: true,
    label: 'Sides',
    group: 'Sides',
    hint: 'Which sides come and go: one alone rocks the sound aside.',
    initial: 'both',
    options: [
      { id: 'both', label: 'both' },
      { id: 'left', label: 'left' },
      { id: 'right', label: 'right' },
    ],
  }),
} satisfies Params;
