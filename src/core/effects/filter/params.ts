import { choice, figure, frequency, rate, ratio } from '../../params/make';
import type { Params } from '../../params/param';
import { LFO_SHAPES } from '../../dsp/lfo';
import { WHOLLY_WET_LINEAR } from '../common';

export const FILTER_KINDS = ['low', 'high', 'band', 'notch'] as const;

export const filterParams = {
  ...WHOLLY_WET_LINEAR,
  kind: choice({
    label: 'Kind',
    group: 'Filter',
    hint: 'What passes: all below, all above, a band, or all but a band.',
    initial: 'low',
    options: [
      { id: 'low', label: 'low-pass' },
      { id: 'high', label: 'high-pass' },
      { id: 'band', label: 'band-pass' },
      { id: 'notch', label: 'notch' },
    ],
  }),
  slope: choice({
    mutesOnChange: true,
    label: 'Slope',
    group: 'Filter',
    hint: 'How firmly it takes away: 12 or 24 dB an octave.',
    initial: '12',
    options: [
      { id: '12', label: '12 dB' },
      { id: '24', label: '24 dB' },
    ],
  }),
  cutoff: frequency({
    label: 'Cutoff',
    group: 'Filter',
    hint: 'Where it takes hold: the rail to ride in a sweep.',
    initial: 1200,
  }),
  resonance: ratio({
    label: 'Resonance',
    group: 'Filter',
    hint: 'A ring at the cutoff: a little brings the sweep out, much whistles.',
    initial: 0.1,
  }),
  drive: figure({
    label: 'Drive',
    group: 'Filter',
    hint: 'Pushes the sound before it is filtered: warmer, then rougher.',
    unit: 'db',
    min: 0,
    max: 24,
    initial: 0,
    offAt: 'min',
  }),
  lfoDepth: figure({
    label: 'LFO depth',
    group: 'Modulation',
    hint: 'How far the cutoff swings to each side: little breathes, much wails.',
    unit: 'octaves',
    min: 0,
    max: 4,
    initial: 0,
    offAt: 'min',
  }),
  lfoRate: rate({
    label: 'LFO rate',
    group: 'Modulation',
    hint: 'How fast it swings: slow opens and closes, fast ripples.',
    initial: '1/4',
  }),
  lfoShape: choice({
    label: 'LFO shape',
    group: 'Modulation',
    hint: 'How it swings: round as a sine, straight, leaning to one side, or in jumps.',
    initial: 'sine',
    options: LFO_SHAPES.map((id) => ({ id, label: id })),
  }),
  envelope: figure({
    label: 'Follow',
    group: 'Modulation',
    hint: 'How far the sound’s own level opens it; left of the middle it closes.',
    unit: 'octaves',
    min: -4,
    max: 4,
    initial: 0,
    notches: [0],
  }),
  attack: figure({
    label: 'Attack',
    group: 'Modulation',
    hint: 'How soon it follows a louder sound: short opens on every hit.',
    unit: 'ms',
    min: 1,
    max: 300,
    initial: 8,
  }),
  release: figure({
    label: 'Release',
    group: 'Modulation',
    hint: 'How soon it falls back: long stays open through a phrase.',
    unit: 'ms',
    min: 10,
    max: 2000,
    initial: 180,
  }),
} satisfies Params;
