import { defineEffect, type Preset } from '../define';
import { grainsParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'An even stream, in tune, in the middle.',
    values: { scatter: 20, regular: 1, detune: 0, spread: 0 },
  },
  {
    id: 'fog',
    name: 'Fog over slack water',
    purpose: 'A bed of long grains out of any chord or voice.',
    values: { size: 420, density: 22, scatter: 900, time: '1/2', spread: 1, mix: 0.6 },
  },
  {
    id: 'frozenFog',
    name: 'Standing fog',
    purpose: 'Freeze it on a moment and let it lie under what comes.',
    values: { size: 380, density: 30, scatter: 320, time: 400, spread: 1, mix: 0.6 },
  },
  {
    id: 'spray',
    name: 'Spray',
    purpose: 'Bright drops an octave up behind a plucked part.',
    values: { size: 46, density: 14, scatter: 260, semitones: 12, regular: 0, spread: 1, mix: 0.4 },
  },
  {
    id: 'climbing',
    name: 'Climbing smoke',
    purpose: 'Each turn a fifth higher: under a riser.',
    searchWords: 'shimmer riser',
    values: { size: 160, density: 26, scatter: 120, semitones: 7, feedback: 0.8, mix: 0.5 },
  },
  {
    id: 'undertow',
    name: 'Backwash',
    purpose: 'Backwards and low: a pull before a break.',
    values: { size: 300, density: 12, backwards: 1, semitones: -12, time: '1/4', scatter: 200, mix: 0.5 },
  },
  {
    id: 'gravelBed',
    name: 'Gravel bed',
    purpose: 'Very short grains: a voice or drum turned to texture.',
    values: { size: 14, density: 70, scatter: 30, time: 60, regular: 0.1, mix: 0.7 },
  },
  {
    id: 'octaveSwarm',
    name: 'Swarm',
    purpose: 'Leaping octaves all round: wide, unquiet pads.',
    searchWords: 'shimmer',
    values: { size: 180, density: 36, octaves: 0.6, detune: 12, scatter: 420, spread: 1, mix: 0.55 },
  },
];

export const grains = defineEffect({
  id: 'grains',
  name: 'Grains',
  family: 'delay',
  purpose: 'Short pieces of what has passed, scattered, turned and laid over one another: clouds and beds.',
  searchWords: 'granular shimmer ambience texture freeze glitch pad',
  params: grainsParams,
  presets,
  headline: ['time', 'density'],
  holds: ['freeze'],
  sampleAccurateSwitch: 'freeze',
});
