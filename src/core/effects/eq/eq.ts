import type { ParamValues, ValueContext } from '../../params/param';
import { defineEffect, type Preset } from '../define';
import { numbersOf, pullOn } from '../handles';
import type { Handle, ResponsePicture } from '../pictures';
import { responsePicture } from '../responsePicture';
import { eqParams } from './params';
import { EqProcessor } from './processor';

const create = (sampleRate: number): EqProcessor => new EqProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): ResponsePicture {
  const number = numbersOf(eqParams, values, context);
  const band = (label: string, hz: keyof typeof eqParams, db: keyof typeof eqParams | null): Handle => ({
    label,
    x: number(hz),
    y: db ? number(db) : 0,
    pullX: pullOn(eqParams, values, context, hz, 'times'),
    pullY: db ? pullOn(eqParams, values, context, db, 'add') : null,
  });
  const cuts = [
    ...(values.lowCutOn === true ? [band('Low cut', 'lowCut', null)] : []),
    ...(values.highCutOn === true ? [band('High cut', 'highCut', null)] : []),
  ];
  return responsePicture({ create, params: eqParams, values, context }, [
    band('Low', 'lowHz', 'lowDb'),
    band('Body', 'bodyHz', 'bodyDb'),
    band('Edge', 'edgeHz', 'edgeDb'),
    band('High', 'highHz', 'highDb'),
    ...cuts,
  ]);
}

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
  params: eqParams,
  presets,
  headline: ['bodyDb', 'edgeDb'],
  createProcessor: create,
  picture,
});
