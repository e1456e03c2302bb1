import { FADER, LINEAR, LOG, TIME } from './taper';
import type { ChoiceParam, NumberParam, ToggleParam } from './param';

type Spec<P> = Partial<P> & Pick<NumberParam, 'label' | 'hint' | 'group'>;
const QUICK = 0.01;

/** A time: note value, ms or samples. Own unit: ms. */
export const time = (spec: Spec<NumberParam>): NumberParam => ({
  kind: 'number',
  unit: 'ms',
  min: 0.1,
  max: 8000,
  initial: '1/4',
  taper: TIME,
  smoothingSeconds: 0,
  sync: 'time',
  ...spec,
});

/** A rate: note value or Hz. Own unit: Hz. */
export const rate = (spec: Spec<NumberParam>): NumberParam => ({
  kind: 'number',
  unit: 'hz',
  min: 0.02,
  max: 20,
  initial: 1,
  taper: LOG,
  smoothingSeconds: 0.05,
  sync: 'rate',
  ...spec,
});

/** A frequency in Hz. */
export const frequency = (spec: Spec<NumberParam>): NumberParam => ({
  kind: 'number',
  unit: 'hz',
  min: 20,
  max: 20000,
  initial: 1000,
  taper: LOG,
  smoothingSeconds: QUICK,
  ...spec,
});

/** A level as a linear gain, shown in dB, silent at the left end. */
export const gain = (spec: Spec<NumberParam>): NumberParam => ({
  kind: 'number',
  unit: 'gain',
  min: 0,
  max: 2,
  initial: 1,
  taper: FADER,
  smoothingSeconds: QUICK,
  notches: [1],
  ...spec,
});

/** A share of the whole: 1 = 100 %. */
export const ratio = (spec: Spec<NumberParam>): NumberParam => ({
  kind: 'number',
  unit: 'ratio',
  min: 0,
  max: 1,
  initial: 0,
  taper: LINEAR,
  smoothingSeconds: QUICK,
  ...spec,
});

/** Any other figure in its own unit. */
export const figure = (
  spec: Spec<NumberParam> & Pick<NumberParam, 'unit' | 'min' | 'max' | 'initial'>,
): NumberParam => ({
  kind: 'number',
  taper: LINEAR,
  smoothingSeconds: QUICK,
  ...spec,
});

export const choice = (spec: Omit<ChoiceParam, 'kind'>): ChoiceParam => ({ kind: 'choice', ...spec });

export const toggle = (spec: Omit<ToggleParam, 'kind'>): ToggleParam => ({ kind: 'toggle', ...spec });
