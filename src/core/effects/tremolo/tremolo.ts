import { defineEffect, type Preset } from '../define';
import { tremoloParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'A sine on both sides together.', values: {} },
  { id: 'lampPulse', name: 'Harbour lamp', purpose: 'A slow pulse under pads.', values: { rate: '1/2', depth: 0.45 } },
  {
    id: 'sideToSide',
    name: 'Rowing',
    purpose: 'Wanders from side to side with the bar.',
    values: { rate: '1 bar', depth: 0.8, phase: 180 },
  },
  {
    id: 'cutRope',
    name: 'Cut rope',
    purpose: 'Hard sixteenths out of a held chord.',
    values: { rate: '1/16', depth: 1, shape: 'square' },
  },
  { id: 'shiver', name: 'Shiver', purpose: 'A quick flutter for keys and guitar.', values: { rate: 6.2, depth: 0.5 } },
  {
    id: 'undertow',
    name: 'Undertow',
    purpose: 'Every beat sinks away and returns, as if bowing to a drum.',
    values: { rate: '1/4', depth: 0.85, shape: 'rise', start: 0 },
  },
  {
    id: 'twoLamps',
    name: 'Two lamps',
    purpose: 'The sides in turn, in triplets.',
    values: { rate: '1/8t', depth: 0.9, shape: 'triangle', phase: 180 },
  },
];

export const tremolo = defineEffect({
  id: 'tremolo',
  name: 'Tremolo',
  family: 'modulation',
  purpose: 'Level that comes and goes in time, together or from side to side (auto-pan).',
  searchWords: 'LFO autopan auto pan pulse rotary volume ducking',
  params: tremoloParams,
  presets,
  headline: ['rate', 'depth'],
});
