import { choice, figure, gain } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

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

/**
 * Parameters of a place are there whether or not a strand lies in it: a strand that is taken out and put back finds
 * them again.
 */
export const braidParams: Params = {
  ...WHOLLY_WET_LINEAR,
  plays: choice({
    label: 'Plays',
    group: 'Braid',
    hint: 'All strands at once, or one at a time; a tail rings on when another takes over.',
    initial: 'all',
    options: [
      { id: 'all', label: 'all strands' },
      { id: 'one', label: 'one strand' },
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
    hint: 'How long it takes to pass from one strand to another.',
    unit: 'ms',
    min: 1,
    max: 500,
    initial: 12,
  }),
  ...(Object.assign({}, ...Array.from({ length: MAX_STRANDS }, (_, i) => strandParams(i + 1))) as Params),
};
