import { figure, frequency, ratio } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

/** From this rate on there is no reduction. */
export const FULL_RATE_HZ = 48_000;
export const MAX_BITS = 16;

export const crushParams = {
  ...WHOLLY_WET_LINEAR,
  rate: frequency({
    label: 'Sample rate',
    group: 'Steps',
    hint: 'How often the wave is looked at: low rates ring with tones that were never there.',
    min: 200,
    max: FULL_RATE_HZ,
    initial: 12_000,
    offAt: 'max',
  }),
  wobble: ratio({
    label: 'Jitter',
    group: 'Steps',
    hint: 'How unsteadily it is looked at: grit instead of pure false tones.',
    initial: 0,
  }),
  bits: figure({
    label: 'Bit depth',
    group: 'Steps',
    hint: 'How many steps the wave has, half as many for each bit less: few hiss, then buzz.',
    unit: 'bits',
    min: 1,
    max: MAX_BITS,
    initial: 8,
    offAt: 'max',
  }),
  bend: figure({
    label: 'Step curve',
    group: 'Steps',
    hint: 'Right of the middle quiet sound gets finer steps, left of it coarser ones.',
    unit: 'pan',
    ends: ['coarser', 'finer'],
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  bias: ratio({
    label: 'Step bias',
    group: 'Steps',
    hint: 'Moves the steps off nothing: quiet sound stays alive as a buzz, instead of falling silent.',
    max: 0.5,
    initial: 0,
  }),
  before: frequency({
    label: 'Filter before',
    group: 'Filters',
    hint: 'Takes the top away first, so that less comes back as false tones.',
    min: 200,
    max: 20_000,
    initial: 20_000,
    offAt: 'max',
  }),
  after: frequency({
    label: 'Filter after',
    group: 'Filters',
    hint: 'Rounds the steps off again.',
    min: 200,
    max: 20_000,
    initial: 20_000,
    offAt: 'max',
  }),
} satisfies Params;
