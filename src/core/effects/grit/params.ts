import { choice, figure, frequency, ratio } from '../../params/make';
import { LOG } from '../../params/taper';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

/** Farthest that the sound is shaken to either side. */
export const MAX_AMOUNT_MS = 4;

export const gritParams = {
  ...WHOLLY_WET_LINEAR,
  kind: choice({
    mutesOnChange: true,
    label: 'Shaken by',
    group: 'Grit',
    hint: 'A sine makes a bell of side tones, noise makes dust.',
    initial: 'noise',
    options: [
      { id: 'noise', label: 'noise' },
      { id: 'sine', label: 'a sine' },
    ],
  }),
  frequency: frequency({
    label: 'Frequency',
    group: 'Grit',
    hint: 'How fast it is shaken: slow ones waver, fast ones grind.',
    min: 5,
    max: 8000,
    initial: 220,
  }),
  bandwidth: figure({
    label: 'Bandwidth',
    group: 'Grit',
    hint: 'How wide the noise is round that frequency: narrow whines, wide is dust.',
    unit: 'octaves',
    min: 0.1,
    max: 6,
    taper: LOG,
    initial: 2,
  }),
  amount: figure({
    label: 'Amount',
    group: 'Grit',
    hint: 'How far it is shaken to and fro: little roughens, much breaks up.',
    unit: 'ms',
    min: 0,
    max: MAX_AMOUNT_MS,
    taper: { kind: 'power', exponent: 3 },
    initial: 0.06,
  }),
  apart: ratio({
    label: 'Sides apart',
    group: 'Grit',
    hint: 'At the left both sides are shaken alike, at the right each by its own.',
    initial: 0.5,
  }),
} satisfies Params;
