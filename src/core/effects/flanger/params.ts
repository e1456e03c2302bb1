import { figure, rate, ratio, toggle } from '../../params/make';
import { LOG } from '../../params/taper';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

/** Longest time in the middle of the sweep. */
export const MAX_DELAY_MS = 10;

export const flangerParams = {
  ...WHOLLY_WET_LINEAR,
  delay: figure({
    label: 'Delay',
    group: 'Comb',
    hint: 'Time between the sound and its copy: short combs lie high, long ones low.',
    unit: 'ms',
    min: 0.1,
    max: MAX_DELAY_MS,
    taper: LOG,
    initial: 1.4,
    smoothingSeconds: 0.05,
  }),
  feedback: figure({
    label: 'Feedback',
    group: 'Comb',
    hint: 'Sharpens the comb; left of the middle its peaks and notches change places.',
    unit: 'ratio',
    min: -0.95,
    max: 0.95,
    initial: 0,
    notches: [0],
  }),
  turned: toggle({
    mutesOnChange: true,
    label: 'Invert',
    group: 'Comb',
    hint: 'Turns the copy over: the lowest notch lies at nothing, and the bass goes.',
    initial: false,
  }),
  throughZero: toggle({
    mutesOnChange: true,
    label: 'Through zero',
    group: 'Comb',
    hint: 'Lets the copy overtake the sound, as two tapes do; all is 11 ms later.',
    initial: false,
  }),
  depth: ratio({ label: 'Sweep', group: 'Modulation', hint: 'How far the comb sweeps up and down.', initial: 0.8 }),
  rate: rate({
    label: 'Rate',
    group: 'Modulation',
    hint: 'How fast the comb sweeps: slow soars, fast warbles.',
    initial: 0.2,
  }),
  place: figure({
    label: 'Place',
    group: 'Modulation',
    hint: 'Where the sweep stands by hand: ride it with the sweep at nothing.',
    unit: 'pan',
    ends: ['shorter', 'longer'],
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  phase: figure({
    label: 'Side phase',
    group: 'Modulation',
    hint: 'How far the right side’s sweep runs behind the left’s: more is wider, and turns round you.',
    unit: 'degrees',
    min: 0,
    max: 180,
    initial: 0,
    notches: [0, 90, 180],
  }),
} satisfies Params;
