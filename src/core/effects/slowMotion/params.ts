import { figure, ratio, time } from '../../params/make';
import type { Params } from '../../params/param';
import { holdParams } from '../hold/params';
import { pitchParams } from '../pitch/params';

/** At this time it is never caught anew. */
export const NEVER_MS = 16_000;

export const slowMotionParams = {
  ...holdParams,
  speed: ratio({
    label: 'Speed',
    group: 'Time',
    hint: 'How fast time goes on: at the left it stands, at twice the speed it catches up.',
    max: 2,
    initial: 0.5,
    notches: [0, 0.25, 0.5, 1],
  }),
  catchEvery: time({
    label: 'Caught anew',
    group: 'Time',
    hint: 'So often it goes to what is heard underneath; at the right end never.',
    min: 100,
    max: NEVER_MS,
    initial: NEVER_MS,
    offAt: 'max',
  }),
  pitch: figure({
    label: 'Pitch',
    group: 'Grains',
    hint: 'Higher or lower, whatever the speed.',
    unit: 'semitones',
    min: -24,
    max: 24,
    initial: 0,
    notches: [-12, -7, 0, 7, 12],
    smoothingSeconds: 0.01,
  }),
  formants: {
    ...pitchParams.formantShift,
    group: 'Grains',
    hint: 'Moves the throat of a single voice apart from its pitch: smaller and younger up, larger and older down.',
  },
  grain: time({
    label: 'Grain',
    group: 'Grains',
    hint: 'Short grains keep hits firm, long ones keep tones smooth.',
    min: 20,
    max: 400,
    initial: 80,
  }),
  scatter: ratio({
    label: 'Scatter',
    group: 'Grains',
    hint: 'How far grains are taken from beside each other: from smooth to a haze.',
    initial: 0,
  }),
} satisfies Params;
