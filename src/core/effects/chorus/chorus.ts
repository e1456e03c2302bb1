import { defineEffect, type Preset } from '../define';
import { chorusParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Two slow lines, nothing added to their tone.', values: { mix: 0.5 } },
  {
    id: 'netMender',
    name: 'Net mender',
    purpose: 'Opens a clean guitar or keys without being noticed.',
    values: { rate: 0.4, depth: 1.6, delay: 9, mix: 0.42, lowCut: 160 },
  },
  {
    id: 'choirBoats',
    name: 'Choir of boats',
    purpose: 'Three lines that make pads and strings many.',
    searchWords: 'lush choir ensemble',
    values: { mode: 'three', rate: 0.28, depth: 3.2, delay: 16, mix: 0.5 },
  },
  {
    id: 'lanternShake',
    name: 'Lantern shake',
    purpose: 'A voice’s own vibrato where it sang straight.',
    values: { mode: 'vibrato', rate: 5.4, depth: 0.28, delay: 4, phase: 0 },
  },
  {
    id: 'wornReel',
    name: 'Worn reel',
    purpose: 'Wavering pitch and warm drive, for samples and keys.',
    values: { mode: 'vibrato', rate: 0.9, depth: 2.4, delay: 10, drive: 8, phase: 20 },
  },
  {
    id: 'wetRope',
    name: 'Wet rope',
    purpose: 'Thick and ringing, for a lead line.',
    values: { rate: 0.75, depth: 1.2, delay: 6, feedback: 0.45, mix: 0.5 },
  },
  {
    id: 'barWash',
    name: 'Tide in a bar',
    purpose: 'Turns once in a bar, the sides against each other.',
    searchWords: 'rotary',
    values: { rate: '1 bar', depth: 4.5, delay: 18, phase: 180, mix: 0.5 },
  },
  {
    id: 'lowKeel',
    name: 'Steady keel',
    purpose: 'For a bass: wide above, still below.',
    values: { rate: 0.5, depth: 1.4, delay: 8, lowCut: 320, mix: 0.4 },
  },
];

export const chorus = defineEffect({
  id: 'chorus',
  name: 'Chorus',
  family: 'modulation',
  purpose: 'Copies whose pitch wavers beside the sound, or the wavering pitch alone.',
  searchWords: 'lush ensemble thicken wide LFO vibrato detune modulation',
  params: chorusParams,
  presets,
  headline: ['mode', 'rate'],
});
