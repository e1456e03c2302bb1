import { defineEffect, type Preset } from '../define';
import { doublingParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'One take more, in tune, standing still.',
    values: { balance: 'levels', dry: 1, wet: 1, voices: 1, detune: 0, drift: 0, spread: 0 },
  },
  {
    id: 'secondOar',
    name: 'Second oar',
    purpose: 'One more take of a voice, close and unobtrusive.',
    values: { voices: 1, detune: 5, time: 24, spread: 0, mix: 0.35 },
  },
  {
    id: 'crew',
    name: 'Crew of four',
    purpose: 'A whole crew singing one line.',
    values: { voices: 4, detune: 14, time: 19, drift: 2.4, spread: 1, mix: 0.5 },
  },
  {
    id: 'broadBeam',
    name: 'Broad beam',
    purpose: 'Two takes hard left and right: wide guitars and pads.',
    values: { voices: 2, detune: 9, time: 15, spread: 1, mix: 0.5 },
  },
  {
    id: 'looseRope',
    name: 'Loose rope',
    purpose: 'Late and loose, as players who never land together.',
    values: { voices: 3, detune: 6, time: 42, drift: 6, driftRate: 0.2, mix: 0.4 },
  },
  {
    id: 'glassHull',
    name: 'Glass hull',
    purpose: 'Close, bright and a little ringing.',
    values: { voices: 2, detune: 3, time: 6, feedback: 0.5, drift: 0.3, mix: 0.4 },
  },
  {
    id: 'lowWater',
    name: 'Low water',
    purpose: 'Wider detune under a synth bass or lead.',
    values: { voices: 2, detune: 24, time: 12, drift: 0.5, mix: 0.45 },
  },
];

export const doubling = defineEffect({
  id: 'doubling',
  name: 'Doubling',
  family: 'delay',
  purpose: 'More takes of the same part: later, a little off pitch, and spread.',
  searchWords: 'double doubler ADT thicken vocal voice unison detune takes chorus',
  params: doublingParams,
  presets,
  headline: ['voices', 'detune'],
});
