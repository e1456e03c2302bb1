import { defineEffect, type Preset } from '../define';
import { eqParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Changes nothing until a band is moved.', values: {} },
  {
    id: 'wetSand',
    name: 'Wet sand',
    purpose: 'Takes the mud out of an echo or reverb return.',
    values: { lowCutOn: true, lowCut: 180, bodyHz: 380, bodyDb: -4.5, bodyQ: 0.9 },
  },
  {
    id: 'glare',
    name: 'Off the glare',
    purpose: 'Softens a hard edge on voice or plucked strings.',
    values: { edgeHz: 3200, edgeDb: -3.5, edgeQ: 1.4, highDb: -1.5, highHz: 9000 },
  },
  {
    id: 'openAir',
    name: 'Open air',
    purpose: 'Lifts the top a little for air over a dull part.',
    values: { highHz: 9500, highDb: 4, lowCutOn: true, lowCut: 40 },
  },
  {
    id: 'hullBody',
    name: 'Hull body',
    purpose: 'Gives weight to a thin part without boom.',
    values: { lowHz: 160, lowDb: 3, bodyHz: 300, bodyDb: -2, bodyQ: 1.2 },
  },
  {
    id: 'farBank',
    name: 'Far bank',
    purpose: 'Both ends away, so that a part stands at a distance.',
    values: { lowCutOn: true, lowCut: 260, highCutOn: true, highCut: 3800, edgeHz: 1400, edgeDb: 2 },
  },
  {
    id: 'makeRoom',
    name: 'Make room',
    purpose: 'A wide dip where the voice lives, for everything around it.',
    values: { edgeHz: 2200, edgeDb: -4, edgeQ: 0.6 },
  },
];

export const eq = defineEffect({
  id: 'eq',
  name: 'EQ',
  family: 'tone',
  purpose: 'Two cuts, two shelves and two bells, drawn by hand on the curve.',
  searchWords: 'equalizer equaliser bell shelf mud air tone low cut high cut',
  params: eqParams,
  presets,
  headline: ['bodyDb', 'edgeDb'],
});
