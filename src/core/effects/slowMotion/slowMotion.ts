import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { slowMotionParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Half the speed, at the same pitch.',
    values: { ...NEUTRAL },
  },
  {
    id: 'standStill',
    name: 'Stand still',
    purpose: 'The moment at which you press, held like a photograph.',
    values: { speed: 0, grain: 140, scatter: 0.2, fadeIn: 10, fadeOut: 40 },
  },
  {
    id: 'halfTide',
    name: 'Half tide',
    purpose: 'Half speed, caught anew at every bar: the beat stays with you.',
    values: { speed: 0.5, catchEvery: '1 bar', startsOn: '1/4', endsOn: '1/4' },
  },
  {
    id: 'lastBreath',
    name: 'Last breath',
    purpose: 'Slower than slow: the end of a word before a drop.',
    values: { speed: 0.12, grain: 120, startsOn: '1/8', endsOn: '1 bar' },
  },
  {
    id: 'treacle',
    name: 'Treacle',
    purpose: 'A third of the speed, an octave down.',
    values: { speed: 0.33, pitch: -12, startsOn: '1/8', endsOn: '1/8' },
  },
  {
    id: 'doubleTime',
    name: 'Double time',
    purpose: 'Twice as fast, over and over what has just passed.',
    values: { speed: 2, catchEvery: '1 bar', startsOn: '1/4', endsOn: '1/4' },
  },
  {
    id: 'glassPane',
    name: 'Pane of glass',
    purpose: 'Time stands and rises by an octave: a shimmering bed.',
    values: { speed: 0, pitch: 12, grain: 200, scatter: 0.6, heard: 'blend', blend: 0.5, fadeIn: 30, fadeOut: 50 },
  },
  {
    id: 'grainyHaze',
    name: 'Haze',
    purpose: 'Scattered grains of a slow moment.',
    values: { speed: 0.25, scatter: 1, grain: 60, startsOn: '1/16', endsOn: '1/16' },
  },
  {
    id: 'fifthBelow',
    name: 'Fifth below',
    purpose: 'Nearly at speed, a fifth lower: a second self.',
    values: { speed: 0.9, pitch: -5, catchEvery: '2 bars', heard: 'blend', blend: 0.5 },
  },
];

export const slowMotion = defineHold({
  id: 'slowMotion',
  name: 'Slow motion',
  purpose: 'While it is held, time slows down or stands still, and the pitch stays.',
  searchWords: 'time stretch stretch slow half speed freeze',
  glyph: 'M4 10c4-9 8-9 12 0s9 9 14 0s9-6 14 0',
  params: slowMotionParams,
  presets,
  headline: ['speed', 'grain'],
});
