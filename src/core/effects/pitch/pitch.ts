import { defineEffect, type Preset } from '../define';
import { pitchParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'The pitch as it came.', values: {} },
  {
    id: 'octaveUnder',
    name: 'Octave under',
    purpose: 'A second voice an octave down, with the same throat.',
    values: { semitones: -12, mix: 0.4 },
  },
  {
    id: 'highHail',
    name: 'High hail',
    purpose: 'An octave up beside the sound: on a reverb’s wet path it glimmers.',
    values: { semitones: 12, mix: 0.4 },
  },
  {
    id: 'fifthAbove',
    name: 'Fifth above',
    purpose: 'A harmony line without a singer.',
    values: { semitones: 7, mix: 0.45 },
  },
  {
    id: 'bosun',
    name: 'Bosun',
    purpose: 'The same tune from a larger throat.',
    searchWords: 'formant deep voice',
    values: { semitones: -3, formantShift: -4 },
  },
  {
    id: 'deckBoy',
    name: 'Deck boy',
    purpose: 'The same tune from a smaller throat.',
    searchWords: 'formant child',
    values: { formantShift: 5 },
  },
  {
    id: 'hairOff',
    name: 'A hair off',
    purpose: 'Nine cents up beside the sound: thick, without wavering.',
    searchWords: 'formant',
    values: { cents: 9, mix: 0.5, formants: 'follow' },
  },
  {
    id: 'drumDown',
    name: 'Drums down',
    purpose: 'By grains: hits stay firm while they sink.',
    values: { semitones: -5, quality: 'grains', formants: 'follow' },
  },
];

export const pitch = defineEffect({
  id: 'pitch',
  name: 'Pitch',
  family: 'tone',
  purpose: 'Up or down in the same time, with the throat of a voice kept or moved apart.',
  searchWords: 'pitch shift transpose octave harmony formant formants vocal voice semitones tune',
  params: pitchParams,
  presets,
  headline: ['semitones', 'formants'],
});
