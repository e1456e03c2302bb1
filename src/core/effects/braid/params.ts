import { choice, figure, gain, ratio } from '../../params/make';
import type { NumberParam, Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';
import { MAX_STEPS, PATTERN_ORDERS, STEP_NOTES } from './pattern';

export const MAX_STRANDS = 8;
export const LONGEST_ALIGN_MS = 100;
/** What a strand takes of the sound, in the order of its choice. */
export const STRAND_INPUTS = ['both', 'left', 'right', 'mid', 'side'] as const;

const INPUT_LABELS = { both: 'both sides', left: 'left', right: 'right', mid: 'mid', side: 'side' } as const;

export const strandGroup = (place: number): string => `Strand ${place}`;

const strandParams = (place: number): Params => {
  const group = strandGroup(place);
  return {
    [`input${place}`]: choice({
      label: 'Takes',
      group,
      hint: 'What of the sound goes down this strand: one side alone comes back in the middle, mid and side as they are.',
      initial: 'both',
      options: STRAND_INPUTS.map((id) => ({ id, label: INPUT_LABELS[id] })),
    }),
    [`level${place}`]: gain({
      label: 'Level',
      group,
      hint: 'How loud this strand comes back; at -6 dB two alike make up the whole.',
      initial: 0.5,
      notches: [0.5, 1],
    }),
    [`pan${place}`]: figure({
      label: 'Pan',
      group,
      hint: 'Where this strand comes back, between left and right.',
      unit: 'pan',
      min: -1,
      max: 1,
      initial: 0,
      notches: [0],
    }),
    [`align${place}`]: figure({
      label: 'Align',
      group,
      hint: 'Holds this strand back, to bring it in step with a later one.',
      unit: 'ms',
      min: 0,
      max: LONGEST_ALIGN_MS,
      initial: 0,
    }),
  };
};

const ORDER_LABELS = {
  forward: 'forward',
  backward: 'backward',
  toAndFro: 'to and fro',
  thrown: 'by chance',
  drawn: 'drawn',
} as const;

export const ROW_IDS = Array.from({ length: MAX_STEPS }, (_, i) => `row${i + 1}`);
export const ROW_GROUP = 'Row';

const rowStep = (n: number): NumberParam =>
  figure({
    label: `Step ${n}`,
    group: ROW_GROUP,
    hint: 'The strand that is heard at this step; nothing at 0.',
    unit: 'count',
    min: 0,
    max: MAX_STRANDS,
    initial: 1 + ((n - 1) % 2),
    smoothingSeconds: 0,
  });

const patternParams = {
  step: choice({
    label: 'Step',
    group: 'Pattern',
    hint: 'How long each strand is heard before the next; its lines are those of the bars.',
    initial: '1/4',
    options: STEP_NOTES.map((id) => ({ id, label: id })),
    ordered: true,
  }),
  order: choice({
    label: 'Order',
    group: 'Pattern',
    hint: 'The way through the strands: in their order or against it, there and back, by chance, or step by step as you draw it.',
    initial: 'forward',
    options: PATTERN_ORDERS.map((id) => ({ id, label: ORDER_LABELS[id] })),
    ordered: true,
  }),
  steps: figure({
    label: 'Steps',
    group: 'Pattern',
    hint: 'After so many steps the pattern begins again; a number that the strands do not divide shifts it against the bar.',
    unit: 'count',
    min: 1,
    max: MAX_STEPS,
    initial: 16,
    notches: [4, 8, 12, 16, 24, 32, 48, 64],
    smoothingSeconds: 0,
  }),
  roll: figure({
    label: 'Roll',
    group: 'Pattern',
    hint: 'Each number is one throw of the order, the same for ever.',
    unit: 'count',
    min: 0,
    max: 999,
    initial: 1,
    smoothingSeconds: 0,
  }),
  open: ratio({
    label: 'Open for',
    group: 'Pattern',
    hint: 'Which share of its step a strand lets sound in: shorter is choppier.',
    min: 0.05,
    initial: 1,
  }),
  tails: choice({
    label: 'Tails',
    group: 'Pattern',
    hint: 'When the next strand takes over, echoes and spaces ring on, or end with their step.',
    initial: 'ring',
    options: [
      { id: 'ring', label: 'ring on' },
      { id: 'cut', label: 'are cut' },
    ],
  }),
  taken: figure({
    label: 'By hand',
    group: 'Pattern',
    hint: 'The strand that a hand takes while the pattern waits; the pattern goes on at 0.',
    unit: 'count',
    min: 0,
    max: MAX_STRANDS,
    initial: 0,
    smoothingSeconds: 0,
  }),
} satisfies Params;

/**
 * Parameters of a place are there whether or not a strand is in it: a strand that is taken out and put back finds them
 * again.
 */
export const braidParams: Params = {
  ...WHOLLY_WET_LINEAR,
  plays: choice({
    label: 'Plays',
    group: 'Braid',
    hint: 'All strands at once, one that you choose, or one per step of a pattern.',
    initial: 'all',
    options: [
      { id: 'all', label: 'all strands' },
      { id: 'one', label: 'one strand' },
      { id: 'pattern', label: 'a pattern' },
    ],
  }),
  chosen: figure({
    label: 'Strand',
    group: 'Braid',
    hint: 'Which strand takes the sound; moves can change it on the beat.',
    unit: 'count',
    min: 1,
    max: MAX_STRANDS,
    initial: 1,
    smoothingSeconds: 0,
    notches: [1, 2, 3, 4, 5, 6, 7, 8],
  }),
  crossfade: figure({
    label: 'Crossfade',
    group: 'Braid',
    hint: 'How long it takes to pass from one strand to another: short cuts, long blends.',
    unit: 'ms',
    min: 1,
    max: 500,
    initial: 12,
  }),
  ...patternParams,
  ...(Object.assign({}, ...Array.from({ length: MAX_STRANDS }, (_, i) => strandParams(i + 1))) as Params),
  ...(Object.fromEntries(ROW_IDS.map((id, i) => [id, rowStep(i + 1)])) as Params),
};
