import { figure, ratio, time, toggle } from '../../params/make';
import { LOG } from '../../params/taper';
import type { Params } from '../../params/param';

export const LONGEST_REACH_MS = 8000;

export const grainsParams = {
  time: time({
    label: 'Time back',
    group: 'Grains',
    hint: 'How far back the grains are taken: near follows the sound, far answers it.',
    min: 1,
    max: 4000,
    initial: '1/8',
    smoothingSeconds: 0.2,
  }),
  scatter: time({
    label: 'Scatter',
    group: 'Grains',
    hint: 'How widely round that place they are taken: none repeats one moment, much blurs many.',
    min: 0.1,
    max: 4000,
    initial: 60,
    smoothingSeconds: 0.1,
  }),
  density: figure({
    label: 'Density',
    group: 'Grains',
    hint: 'How many grains a second: few are drops, many a cloud.',
    unit: 'hz',
    min: 1,
    max: 120,
    taper: LOG,
    initial: 24,
  }),
  size: figure({
    label: 'Size',
    group: 'Grains',
    hint: 'How long a grain is: short ones click and buzz, long ones flow.',
    unit: 'ms',
    min: 8,
    max: 600,
    taper: LOG,
    initial: 120,
  }),
  regular: ratio({
    label: 'Evenness',
    group: 'Grains',
    hint: 'At the right they come evenly, at the left as rain does.',
    initial: 0.3,
  }),
  semitones: figure({
    label: 'Semitones',
    group: 'Pitch',
    hint: 'How far up or down the grains are played.',
    unit: 'semitones',
    min: -24,
    max: 24,
    initial: 0,
    notches: [-24, -12, -7, -5, 0, 5, 7, 12, 24],
  }),
  detune: figure({
    label: 'Detune',
    group: 'Pitch',
    hint: 'How far each grain may be off that pitch: some shimmers, much blurs the key.',
    unit: 'cents',
    min: 0,
    max: 100,
    initial: 4,
  }),
  octaves: ratio({ label: 'Octaves', group: 'Pitch', hint: 'How many of them leap an octave up or down.', initial: 0 }),
  backwards: ratio({
    label: 'Backwards',
    group: 'Pitch',
    hint: 'How many of them are played from their end: swells among the hits.',
    initial: 0,
  }),
  spread: ratio({ label: 'Spread', group: 'Sides', hint: 'How far apart they stand, left and right.', initial: 0.7 }),
  feedback: ratio({
    label: 'Feedback',
    group: 'Cloud',
    hint: 'How much of the cloud is taken in again: it grows, blurs, and climbs or sinks with the pitch.',
    max: 0.95,
    initial: 0,
  }),
  freeze: toggle({
    label: 'Freeze',
    group: 'Cloud',
    hint: 'Takes nothing new in: the cloud stands on what it holds.',
    initial: false,
  }),
} satisfies Params;
