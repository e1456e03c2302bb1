import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { ResponsePicture, Sweep } from '../pictures';
import { responsePicture } from '../responsePicture';
import { phaserParams } from './params';
import { PhaserProcessor } from './processor';

const create = (sampleRate: number): PhaserProcessor => new PhaserProcessor(sampleRate);

/** Positions of a sweep at which responses are computed, at the end of a swing, where it hardly moves. */
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
          pullX: dragEffect(phaserParams, values, context, 'centre', 'times'),
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

export const phaserImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
