import type { ParamValues, ValueContext } from '../../params/param';
import { defineEffect, type Preset } from '../define';
import { numbersOf, pullOn } from '../handles';
import type { ResponsePicture, Sweep } from '../pictures';
import { responsePicture } from '../responsePicture';
import { phaserParams } from './params';
import { PhaserProcessor } from './processor';

const create = (sampleRate: number): PhaserProcessor => new PhaserProcessor(sampleRate);

/** Places of a sweep at which it is looked at, while it all but stands still at the end of a swing. */
const PLACES = 17;
const STILL_HZ = 0.02;

function picture(values: ParamValues, context: ValueContext): ResponsePicture {
  const number = numbersOf(phaserParams, values, context);
  const centre = number('centre');
  const still = (octaves: number): ResponsePicture =>
    responsePicture(
      {
        create,
        params: phaserParams,
        values: { ...values, depth: Math.abs(octaves), rate: STILL_HZ, phase: 0 },
        context,
        atSeconds: (octaves < 0 ? 0.75 : 0.25) / STILL_HZ,
      },
      [
        {
          label: 'Centre',
          x: centre,
          y: 0,
          pullX: pullOn(phaserParams, values, context, 'centre', 'times'),
          pullY: null,
        },
      ],
    );
  const depth = number('depth');
  return depth === 0 ? still(0) : { ...still(0), sweep: sweepOf(still, depth, number('rate'), number('phase') / 360) };
}

function sweepOf(still: (octaves: number) => ResponsePicture, depth: number, hz: number, behindTurns: number): Sweep {
  const octaves = Array.from({ length: PLACES }, (_, i) => depth * ((2 * i) / (PLACES - 1) - 1));
  const seen = octaves.map(still);
  const apart = behindTurns > 0 || seen.some(({ right }) => right !== null);
  return {
    octaves,
    left: seen.map(({ left }) => left),
    right: apart ? seen.map(({ left, right }) => right ?? left) : null,
    depth,
    hz,
    behindTurns,
  };
}

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Four stages that stand still.', values: { stages: 4, depth: 0 } },
  {
    id: 'slowSwell',
    name: 'Slow swell',
    purpose: 'Long soft sweep under pads.',
    values: { stages: 6, rate: '4 bars', depth: 1.6 },
  },
  {
    id: 'oneShore',
    name: 'One shore',
    purpose: 'On the right side alone: opens a mono part.',
    values: { stages: 8, sides: 'right', rate: 0.18, depth: 1.2 },
  },
  {
    id: 'oilSheen',
    name: 'Oil sheen',
    purpose: 'Many sharp notches that glide over keys and guitar.',
    values: { stages: 12, feedback: 0.55, rate: 0.22, depth: 1 },
  },
  {
    id: 'chop',
    name: 'Chop',
    purpose: 'Quick and hollow, in eighths.',
    values: { stages: 4, feedback: -0.6, rate: '1/8', depth: 0.9, centre: 1100 },
  },
  {
    id: 'apart',
    name: 'Tides apart',
    purpose: 'The sides sweep against each other.',
    values: { stages: 6, phase: 180, rate: 0.12, depth: 1.5, feedback: 0.25 },
  },
  {
    id: 'vowel',
    name: 'Humming wall',
    purpose: 'Stands still and gives a part a throat; ride the centre.',
    values: { stages: 8, depth: 0, feedback: 0.7, centre: 620 },
  },
];

export const phaser = defineEffect({
  id: 'phaser',
  name: 'Phaser',
  family: 'modulation',
  purpose: 'Notches that travel through the sound, on both sides or on one alone.',
  params: phaserParams,
  presets,
  headline: ['stages', 'centre'],
  createProcessor: create,
  picture,
});
