import { choice, figure } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET } from '../common';

export const pitchParams = {
  ...WHOLLY_WET,
  semitones: figure({
    label: 'Semitones',
    group: 'Pitch',
    hint: 'How far up or down, in steps of the keyboard: twelve are an octave.',
    unit: 'semitones',
    min: -24,
    max: 24,
    initial: 0,
    notches: [-24, -12, -7, -5, 0, 5, 7, 12, 24],
    smoothingSeconds: 0.02,
  }),
  cents: figure({
    label: 'Cents',
    group: 'Pitch',
    hint: 'Hundredths of a semitone, to be in tune or a little off.',
    unit: 'cents',
    min: -100,
    max: 100,
    initial: 0,
    notches: [0],
    smoothingSeconds: 0.02,
  }),
  quality: choice({
    mutesOnChange: true,
    label: 'By',
    group: 'Pitch',
    hint: 'Its spectrum keeps voices and chords whole; grains are lighter, firm on hits, and keep the formants of one voice at a time.',
    initial: 'spectrum',
    options: [
      { id: 'spectrum', label: 'its spectrum' },
      { id: 'grains', label: 'grains' },
    ],
  }),
  formants: choice({
    mutesOnChange: true,
    label: 'Formants',
    group: 'Formants',
    hint: 'The throat of a voice: kept where it is, or carried along with the pitch.',
    initial: 'keep',
    options: [
      { id: 'keep', label: 'kept' },
      { id: 'follow', label: 'go along' },
    ],
  }),
  formantShift: figure({
    label: 'Formant shift',
    group: 'Formants',
    hint: 'Moves the throat alone: smaller and younger up, larger and older down.',
    unit: 'semitones',
    min: -12,
    max: 12,
    initial: 0,
    notches: [0],
    smoothingSeconds: 0.05,
  }),
} satisfies Params;
