import { choice, figure, rate, ratio, toggle } from '../../params/make';
import type { NumberParam, Params } from '../../params/param';
import { LOG } from '../../params/taper';
import { WHOLLY_WET_LINEAR } from '../common';

export const PATH_POINTS = 8;
export const FARTHEST_METRES = 30;
export const NEAREST_METRES = 0.3;

const point = (label: string, initial: number): NumberParam =>
  figure({
    label,
    group: 'Drawn path',
    hint: 'A corner of the drawn path, in metres: right and ahead of you are above 0.',
    unit: 'metres',
    min: -FARTHEST_METRES,
    max: FARTHEST_METRES,
    initial,
    smoothingSeconds: 0.1,
  });

const corners = Object.fromEntries(
  Array.from({ length: PATH_POINTS }, (_, i) => i).flatMap((i) => {
    const angle = (2 * Math.PI * i) / PATH_POINTS;
    return [
      [`x${i + 1}`, point(`Across ${i + 1}`, Math.round(30 * Math.sin(angle)) / 10)],
      [`y${i + 1}`, point(`Ahead ${i + 1}`, Math.round(30 * Math.cos(angle)) / 10)],
    ] as const;
  }),
);

export const placerRails = {
  ...WHOLLY_WET_LINEAR,
  direction: figure({
    label: 'Direction',
    group: 'Place',
    hint: '0° is ahead of you, 90° right, 180° behind, 270° left.',
    unit: 'degrees',
    min: 0,
    max: 360,
    initial: 40,
    notches: [0, 90, 180, 270],
    smoothingSeconds: 0.05,
  }),
  distance: figure({
    label: 'Distance',
    group: 'Place',
    hint: 'Farther is quieter, duller and later.',
    unit: 'metres',
    min: NEAREST_METRES,
    max: FARTHEST_METRES,
    initial: 2,
    taper: LOG,
    notches: [1],
    smoothingSeconds: 0.08,
  }),
  height: figure({
    label: 'Height',
    group: 'Place',
    hint: 'Above or below your ears.',
    unit: 'metres',
    min: -3,
    max: 6,
    initial: 0,
    notches: [0],
    smoothingSeconds: 0.08,
  }),
  spread: figure({
    label: 'Spread',
    group: 'Place',
    hint: 'How far apart the two sides of the sound stand; at the left it is one point.',
    unit: 'degrees',
    min: 0,
    max: 180,
    initial: 0,
    notches: [0],
    smoothingSeconds: 0.05,
  }),
  head: choice({
    label: 'Head',
    group: 'Air',
    hint: 'How a place is told: by time, level and shadow as a head does, by time alone, or by level alone.',
    initial: 'full',
    options: [
      { id: 'full', label: 'time and shadow' },
      { id: 'time', label: 'time alone' },
      { id: 'level', label: 'level alone' },
    ],
  }),
  outerEar: ratio({
    label: 'Outer ear',
    group: 'Air',
    hint: 'The echoes of ear and shoulder: they tell above from below and before from behind, and colour the sound.',
    initial: 0,
  }),
  distanceLevel: ratio({
    label: 'Distance level',
    group: 'Air',
    hint: 'How much level a distance takes: 100 % is as in open air.',
    max: 1.5,
    initial: 1,
    notches: [1],
  }),
  airDamping: ratio({
    label: 'Air damping',
    group: 'Air',
    hint: 'How much of the highs the air swallows.',
    max: 2,
    initial: 1,
    notches: [1],
  }),
  doppler: toggle({
    mutesOnChange: true,
    label: 'Doppler',
    group: 'Air',
    hint: 'Sound takes its time: pitch rises as it comes and falls as it goes.',
    initial: false,
  }),
  reflections: ratio({
    label: 'Reflections',
    group: 'Air',
    hint: 'Floor and walls answer: tells near from far.',
    initial: 0.25,
  }),
  path: choice({
    label: 'Path',
    group: 'Path',
    hint: 'How it moves: stands, circles you, swings to and fro, draws an eight, or follows what you draw on the map.',
    initial: 'stand',
    options: [
      { id: 'stand', label: 'stand' },
      { id: 'circle', label: 'circle' },
      { id: 'swing', label: 'swing' },
      { id: 'eight', label: 'eight' },
      { id: 'drawn', label: 'drawn' },
    ],
  }),
  rate: rate({
    label: 'Path rate',
    group: 'Path',
    hint: 'How long one round takes.',
    min: 0.01,
    max: 4,
    initial: '2 bars',
  }),
  extent: figure({
    label: 'Swing',
    group: 'Path',
    hint: 'How far it swings to each side.',
    unit: 'degrees',
    min: 0,
    max: 180,
    initial: 60,
    smoothingSeconds: 0.05,
  }),
} satisfies Params;

export const placerParams: Params = { ...placerRails, ...corners };
