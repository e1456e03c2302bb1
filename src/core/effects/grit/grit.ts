import { defineEffect, type Preset } from '../define';
import { gritParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Stands still: the sound as it was.', values: { amount: 0 } },
  {
    id: 'dustOnRope',
    name: 'Dust on rope',
    purpose: 'Fine dirt on a clean synth or voice.',
    values: { kind: 'noise', frequency: 900, bandwidth: 3, amount: 0.02, mix: 0.7 },
  },
  {
    id: 'boiler',
    name: 'Boiler',
    purpose: 'Low rumbling unrest under drones and beds.',
    values: { kind: 'noise', frequency: 60, bandwidth: 1.5, amount: 0.6 },
  },
  {
    id: 'glassBell',
    name: 'Glass bell',
    purpose: 'Side tones that make keys ring like glass.',
    values: { kind: 'sine', frequency: 880, amount: 0.05, mix: 0.6 },
  },
  {
    id: 'torn',
    name: 'Torn sail',
    purpose: 'Rides up into pure noise: the end of a riser.',
    values: { kind: 'noise', frequency: 320, bandwidth: 4, amount: 1.2, apart: 1 },
  },
  {
    id: 'hoarse',
    name: 'Hoarse',
    purpose: 'A voice after a night of shouting over wind.',
    values: { kind: 'noise', frequency: 140, bandwidth: 0.8, amount: 0.12, apart: 0.2 },
  },
  {
    id: 'growl',
    name: 'Growl',
    purpose: 'A bass that snarls at half its own speed.',
    values: { kind: 'sine', frequency: 35, amount: 0.5, apart: 0 },
  },
];

export const grit = defineEffect({
  id: 'grit',
  name: 'Grit',
  family: 'tone',
  purpose: 'Shakes the sound in time, faster than can be heard as movement: dust, bells, roughness.',
  searchWords: 'distortion lofi lo-fi dirt noise amplitude modulation frequency modulation rough',
  params: gritParams,
  presets,
  headline: ['kind', 'amount'],
  visibleWhen: { bandwidth: [{ param: 'kind', isNot: 'sine' }] },
});
