import { defineEffect, type Preset } from '../define';
import { shifterParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Every tone thirty hertz higher.', values: {} },
  {
    id: 'slowBeat',
    name: 'Two engines',
    purpose: 'Half a hertz beside the sound: it beats as two boats’ engines do.',
    values: { shift: 0.4, mix: 0.5 },
  },
  {
    id: 'brassPlate',
    name: 'Struck plate',
    purpose: 'Rings a voice or drum into metal.',
    values: { shift: 320, blend: 0, mix: 0.6 },
  },
  {
    id: 'risingStair',
    name: 'Rising stair',
    purpose: 'A spiral that climbs for ever: under a riser.',
    values: { shift: 14, feedback: 0.78, delay: 90, mix: 0.55 },
  },
  {
    id: 'sinking',
    name: 'Sinking',
    purpose: 'Each turn lower than the one before: the fall after a bar.',
    values: { shift: 22, blend: -1, feedback: 0.72, delay: 140, mix: 0.55 },
  },
  {
    id: 'twoShores',
    name: 'Two shores',
    purpose: 'The sides beat against each other: wide from mono.',
    values: { shift: 0.2, apart: 0.7, mix: 0.7 },
  },
  {
    id: 'radioBuoy',
    name: 'Radio buoy',
    purpose: 'Off its station: speech that does not quite fit.',
    searchWords: 'ring modulator robot',
    values: { shift: 75, blend: 1, mix: 1 },
  },
  {
    id: 'hollowComb',
    name: 'Barber’s comb',
    purpose: 'A comb of notches that only ever climbs.',
    values: { shift: 0.35, feedback: 0.8, delay: 1.8, mix: 0.5 },
  },
];

export const shifter = defineEffect({
  id: 'shifter',
  name: 'Shifter',
  family: 'modulation',
  purpose: 'Moves every tone by the same number of hertz, up, down or both ways as a ring modulator.',
  searchWords: 'frequency shifter ring modulator barber pole detune clang metallic',
  params: shifterParams,
  presets,
  headline: ['shift', 'blend'],
});
