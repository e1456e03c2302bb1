import { choice, figure, frequency, toggle } from '../../params/make';
import { LOG } from '../../params/taper';
import type { NumberParam, Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const CURVES = ['soft', 'tube', 'tape', 'transistor', 'hard', 'fold', 'wrap', 'drawn'] as const;
export type Curve = (typeof CURVES)[number];

/** Heights of a drawn curve are at so many places evenly from the lowest to the highest of the wave. */
export const DRAWN_POINTS = 9;
export const DRAWN_IDS = Array.from({ length: DRAWN_POINTS }, (_, i) => `height${i + 1}`);
const DRAWN_INITIAL = [-0.9, -0.86, -0.72, -0.42, 0, 0.42, 0.72, 0.86, 0.9];

const height = (i: number): NumberParam =>
  figure({
    label: `Height ${i + 1}`,
    group: 'Drawn',
    hint: 'How high the drawn curve stands here: draw it in the picture.',
    unit: 'ratio',
    min: -1,
    max: 1,
    initial: DRAWN_INITIAL[i]!,
  });

export const driveParams = {
  ...WHOLLY_WET_LINEAR,
  curve: choice({
    mutesOnChange: true,
    label: 'Curve',
    group: 'Drive',
    hint: 'How the wave is bent: gently, to one side, late and firm, cut, folded back, wrapped round, or as you draw it.',
    initial: 'tape',
    options: CURVES.map((id) => ({ id, label: id === 'hard' ? 'hard clip' : id })),
  }),
  drive: figure({
    label: 'Drive',
    group: 'Drive',
    hint: 'How hard the sound is pushed into the curve.',
    unit: 'db',
    min: 0,
    max: 48,
    initial: 12,
  }),
  bias: figure({
    label: 'Bias',
    group: 'Drive',
    hint: 'Pushes the wave to one side: even harmonics, and a cough when it is much.',
    unit: 'ratio',
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  match: toggle({
    label: 'Level match',
    group: 'Drive',
    hint: 'As loud as it came in, so that you judge the colour and not the level.',
    initial: true,
  }),
  oversampling: choice({
    mutesOnChange: true,
    label: 'Oversampling',
    group: 'Drive',
    hint: 'Keeps harmonics that have no room from coming back as other tones; it costs load and is a little later.',
    initial: '4',
    options: [
      { id: '1', label: 'none' },
      { id: '2', label: '2 times' },
      { id: '4', label: '4 times' },
      { id: '8', label: '8 times' },
    ],
  }),
  tone: figure({
    label: 'Tone',
    group: 'Tone',
    hint: 'Tilts what was driven: darker to the left, brighter to the right.',
    unit: 'pan',
    ends: ['darker', 'brighter'],
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  bandAmount: figure({
    label: 'Band',
    group: 'Band',
    hint: 'Drives a band harder, or spares it; its level stays.',
    unit: 'db',
    min: -18,
    max: 18,
    initial: 0,
    notches: [0],
  }),
  bandHz: frequency({
    label: 'Band frequency',
    group: 'Band',
    hint: 'Where the band lies: low drives the weight, high the bite.',
    min: 40,
    max: 12_000,
    initial: 900,
  }),
  bandWidth: figure({
    label: 'Band width',
    group: 'Band',
    hint: 'How wide the band is: narrow picks out a colour, wide takes nearly all.',
    unit: 'octaves',
    min: 0.3,
    max: 4,
    taper: LOG,
    initial: 1.5,
  }),
  height1: height(0),
  height2: height(1),
  height3: height(2),
  height4: height(3),
  height5: height(4),
  height6: height(5),
  height7: height(6),
  height8: height(7),
  height9: height(8),
} satisfies Params;
