import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { ResponsePicture } from '../pictures';
import { responsePicture } from '../responsePicture';
import { flangerParams } from './params';
import { FlangerProcessor } from './processor';

const create = (sampleRate: number): FlangerProcessor => new FlangerProcessor(sampleRate);

/** Positions of the sweep at which responses are computed. */
const PLACES = 25;

function picture(values: ParamValues, context: ValueContext): ResponsePicture {
  const number = numbersOf(flangerParams, values, context);
  const still = (place: number): ResponsePicture =>
    responsePicture({ create, params: flangerParams, values: { ...values, depth: 0, place }, context }, []);
  // The first notch, which falls as the time rises.
  const first = 500 / Math.max(0.03, number('delay') * (1 + number('place')));
  const handles =
    values.throughZero === true
      ? []
      : [
          {
            label: 'Delay',
            x: Math.min(18_000, first),
            y: 0,
            pullX: dragEffect(flangerParams, values, context, 'delay', 'times', -1),
            pullY: null,
          },
        ];
  const middle = { ...still(number('place')), handles };
  const depth = number('depth');
  if (depth === 0) return middle;
  const swings = Array.from({ length: PLACES }, (_, i) => depth * ((2 * i) / (PLACES - 1) - 1));
  const seen = swings.map((swing) => still(Math.max(-1, Math.min(1, number('place') + swing))).left);
  const behindTurns = number('phase') / 360;
  // In the middle of a sweep through zero the copy coincides with the sound, and the response is flat: it is drawn half
  // way out.
  const rest = values.throughZero === true ? 0.5 * depth : 0;
  return {
    ...middle,
    ...(rest > 0 ? { left: still(Math.min(1, number('place') + rest)).left } : {}),
    sweep: {
      octaves: swings,
      left: seen,
      right: behindTurns > 0 ? seen : null,
      depth,
      hz: number('rate'),
      behindTurns,
      slides: false,
      rest,
    },
  };
}

export const flangerImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
