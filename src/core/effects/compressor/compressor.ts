import { defineEffect, type Preset } from '../define';
import { compressorParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Holds nothing back until the ratio is raised.', values: { ratio: 1 } },
  {
    id: 'evenVoice',
    name: 'Even voice',
    purpose: 'A voice that stays in front, word for word.',
    values: { threshold: -22, ratio: 3, attack: 6, release: 120, knee: 9, makeUp: 5 },
  },
  {
    id: 'moorings',
    name: 'Moorings',
    purpose: 'Ties a drum bus together.',
    searchWords: 'glue bus',
    values: { threshold: -16, ratio: 2, attack: 30, release: 180, knee: 8, makeUp: 2 },
  },
  {
    id: 'makeRoom',
    name: 'Make room',
    purpose: 'Bows to another track, much quieter while that sounds: choose which one it listens to.',
    searchWords: 'sidechain pump kick ducking',
    values: { source: 'side', threshold: -30, ratio: 6, attack: 4, release: 160, knee: 4 },
  },
  {
    id: 'breathing',
    name: 'Breathing tail',
    purpose: 'On a reverb’s wet path: it sinks under the sound and swells after it.',
    values: { threshold: -34, ratio: 8, attack: 2, release: 420, makeUp: 15 },
  },
  {
    id: 'pressed',
    name: 'Pressed flat',
    purpose: 'Everything at one level: beds and textures.',
    values: { threshold: -40, ratio: 12, attack: 3, release: 600, knee: 12, makeUp: 22 },
  },
  {
    id: 'beside',
    name: 'Beside itself',
    purpose: 'Squeezed hard and laid under the sound as it was.',
    values: { threshold: -36, ratio: 10, attack: 1, release: 90, makeUp: 14, balance: 'levels', dry: 1, wet: 0.4 },
  },
  {
    id: 'hitThrough',
    name: 'Let the hit through',
    purpose: 'More attack for a soft drum or plucked string.',
    values: { threshold: -28, ratio: 5, attack: 45, release: 80, knee: 3, makeUp: 9 },
  },
];

export const compressor = defineEffect({
  id: 'compressor',
  name: 'Compressor',
  family: 'tone',
  purpose: 'Holds loud back, by its own level or by that of another track.',
  searchWords: 'glue dynamics sidechain ducking pump punch parallel squash',
  params: compressorParams,
  presets,
  headline: ['threshold', 'ratio'],
  editorParts: [{ part: 'sidechain', after: 'source', when: { param: 'source', is: 'side' } }],
});
