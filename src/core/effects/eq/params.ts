import { figure, frequency, toggle } from '../../params/make';
import type { NumberParam, Params } from '../../params/param';
import { LOG } from '../../params/taper';
import { WHOLLY_WET_LINEAR } from '../common';

const level = (label: string, group: string): NumberParam =>
  figure({
    label,
    group,
    hint: 'Raises or lowers this band: more comes forward, less makes room.',
    unit: 'db',
    min: -24,
    max: 24,
    initial: 0,
    notches: [0],
  });
const place = (label: string, group: string, initial: number, hint: string): NumberParam =>
  frequency({ label, group, hint, initial });
const BELL = 'Where this band works: low is weight, the middle nearness, high edge.';
const q = (label: string, group: string): NumberParam =>
  figure({
    label,
    group,
    hint: 'Wide at the left colours gently, narrow at the right picks out a tone.',
    unit: 'count',
    min: 0.2,
    max: 12,
    initial: 1,
    taper: LOG,
  });

export const eqParams = {
  ...WHOLLY_WET_LINEAR,
  bodyHz: place('Body', 'Bells', 420, BELL),
  bodyDb: level('Body level', 'Bells'),
  bodyQ: q('Body width', 'Bells'),
  edgeHz: place('Edge', 'Bells', 2600, BELL),
  edgeDb: level('Edge level', 'Bells'),
  edgeQ: q('Edge width', 'Bells'),
  lowHz: place('Low', 'Shelves', 140, 'Everything below is raised or lowered: weight and rumble.'),
  lowDb: level('Low level', 'Shelves'),
  highHz: place('High', 'Shelves', 6000, 'Everything above is raised or lowered: air and hiss.'),
  highDb: level('High level', 'Shelves'),
  lowCutOn: toggle({
    mutesOnChange: true,
    label: 'Low cut',
    group: 'Cuts',
    hint: 'Takes away rumble and weight below, 12 dB an octave.',
    initial: false,
  }),
  lowCut: place('Low cut from', 'Cuts', 60, 'What is below goes: higher is thinner.'),
  highCutOn: toggle({
    mutesOnChange: true,
    label: 'High cut',
    group: 'Cuts',
    hint: 'Takes away air and hiss above, 12 dB an octave.',
    initial: false,
  }),
  highCut: place('High cut from', 'Cuts', 14_000, 'What is above goes: lower is duller.'),
} satisfies Params;
