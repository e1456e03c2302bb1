import { choice, figure, ratio, time } from '../../params/make';
import type { Params } from '../../params/param';
import { holdParams } from '../hold/params';

/** Where the slice is taken. */
export const FROM = ['before', 'after'] as const;
export const BACKWARDS = ['never', 'second', 'always'] as const;
/** At this time it is never caught anew. */
export const NEVER_MS = 16_000;

export const stutterParams = {
  ...holdParams,
  slice: time({
    label: 'Slice',
    group: 'Slice',
    hint: 'How long each turn is: short slices become a tone.',
    min: 5,
    max: NEVER_MS,
    initial: '1/8',
  }),
  from: choice({
    label: 'Taken',
    group: 'Slice',
    hint: 'What has just been heard, or what comes first and is then repeated.',
    initial: 'before',
    options: [
      { id: 'before', label: 'before the start' },
      { id: 'after', label: 'from the start on' },
    ],
  }),
  catchEvery: time({
    label: 'Caught anew',
    group: 'Slice',
    hint: 'So often it takes a new slice of what goes on underneath; at the right end never.',
    min: 20,
    max: NEVER_MS,
    initial: NEVER_MS,
    offAt: 'max',
  }),
  pitch: figure({
    label: 'Pitch per turn',
    group: 'Turns',
    hint: 'Each turn is so much higher or lower than the one before.',
    unit: 'semitones',
    min: -12,
    max: 12,
    initial: 0,
    notches: [0],
  }),
  decay: ratio({
    label: 'Decay per turn',
    group: 'Turns',
    hint: 'Each turn is so much quieter than the one before.',
    initial: 0,
  }),
  speedUp: ratio({
    label: 'Speeding up',
    group: 'Turns',
    hint: 'Each turn is so much shorter than the one before, down to a hum.',
    max: 0.5,
    initial: 0,
  }),
  backwards: choice({
    label: 'Backwards',
    group: 'Turns',
    hint: 'Which turns are heard from their end to their beginning.',
    initial: 'never',
    options: [
      { id: 'never', label: 'no turn' },
      { id: 'second', label: 'every second turn' },
      { id: 'always', label: 'every turn' },
    ],
  }),
} satisfies Params;
