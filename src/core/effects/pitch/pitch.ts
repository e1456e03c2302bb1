import { defineEffect, type Preset } from '../define';
import { partialsPicture } from '../partialsPicture';
import { pitchParams } from './params';
import { PitchProcessor } from './processor';

const create = (sampleRate: number): PitchProcessor => new PitchProcessor(sampleRate);

/** A sung note: harmonics of 220 Hz under three formants, so that both pitch and throat can be seen to move. */
const HILLS = [
  [650, 120],
  [1080, 140],
  [2650, 260],
] as const;
const throatAt = (hz: number): number =>
  HILLS.reduce((sum, [centre, wide]) => sum + 1 / (1 + ((hz - centre) / wide) ** 2), 0.02);
const SUNG = {
  words: 'a sung note of 220 Hz',
  tones: Array.from({ length: 16 }, (_, i) => ({
    hz: 220 * (i + 1),
    level: (0.16 * throatAt(220 * (i + 1))) / Math.sqrt(i + 1),
  })),
  settleSeconds: 0.25,
};

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
    values: { semitones: -3, formantShift: -4 },
  },
  { id: 'deckBoy', name: 'Deck boy', purpose: 'The same tune from a smaller throat.', values: { formantShift: 5 } },
  {
    id: 'hairOff',
    name: 'A hair off',
    purpose: 'Nine cents up beside the sound: thick, without wavering.',
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
  params: pitchParams,
  presets,
  headline: ['semitones', 'formants'],
  createProcessor: create,
  picture: (values, context) => partialsPicture({ create, params: pitchParams, values, context }, SUNG),
});
