import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { cloudParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'An even cloud in the middle, in tune.',
    values: { ...NEUTRAL, spread: 0 },
  },
  {
    id: 'seaSmoke',
    name: 'Sea smoke',
    purpose: 'The chord you press on, for as long as you hold.',
    values: { size: 300, density: 40, scatter: '1/2', spread: 1, fadeIn: 20, fadeOut: 50 },
  },
  {
    id: 'driftApart',
    name: 'Drift apart',
    purpose: 'Feeds on itself and grows away from what it was.',
    values: { feedback: 0.9, size: 220, scatter: '1/1', spread: 1, fadeIn: 10, fadeOut: 50 },
  },
  {
    id: 'hailstones',
    name: 'Hailstones',
    purpose: 'Single short grains of a beat, here and there.',
    values: { density: 12, size: 40, scatter: '1 bar', spread: 1, startsOn: '1/16', endsOn: '1/16' },
  },
  {
    id: 'octaveMist',
    name: 'Octave mist',
    purpose: 'The same moment an octave up, over the sound.',
    values: { pitch: 12, size: 260, spread: 1, heard: 'blend', blend: 0.4, fadeIn: 30, fadeOut: 50 },
  },
  {
    id: 'deepCurrent',
    name: 'Deep current',
    purpose: 'An octave down and dark: weight before a drop.',
    values: { pitch: -12, size: 400, density: 24, highCut: 2500, startsOn: '1/4', endsOn: '1 bar' },
  },
  {
    id: 'backwash',
    name: 'Backwash cloud',
    purpose: 'All grains in reverse: sucked back.',
    values: { backwards: 1, size: 240, scatter: '1/2', startsOn: '1/8', endsOn: '1/8' },
  },
  {
    id: 'swarmOfWords',
    name: 'Swarm of words',
    purpose: 'Long grains of a voice, all over one bar.',
    values: { size: 500, density: 18, scatter: '1 bar', spread: 1, startsOn: '1/4', endsOn: '1/4', fadeOut: 40 },
  },
  {
    id: 'staticSpray',
    name: 'Static',
    purpose: 'Dense and tiny: a hiss made of the song.',
    values: { density: 110, size: 20, scatter: '1/1', lowCut: 400, startsOn: '1/16', endsOn: '1/16' },
  },
];

export const cloud = defineHold({
  id: 'cloud',
  name: 'Cloud',
  purpose: 'While it is held, grains of what has just passed make a cloud that can feed on itself.',
  searchWords: 'granular freeze ambience texture grains wash',
  glyph: 'M8 5v.1M16 13v.1M20 6v.1M26 15v.1M29 4v.1M33 10v.1M39 14v.1M41 6v.1M12 16v.1',
  params: cloudParams,
  presets,
  headline: ['density', 'size'],
});
