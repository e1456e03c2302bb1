import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { ResponsePicture } from '../pictures';
import { responsePicture } from '../responsePicture';
import { filterParams } from './params';
import { FilterProcessor } from './processor';

/** Height of the ring at full resonance. */
const RESONANCE_DB = 23;

const create = (sampleRate: number): FilterProcessor => new FilterProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): ResponsePicture {
  const number = numbersOf(filterParams, values, context);
  return responsePicture({ create, params: filterParams, values: { ...values, lfoDepth: 0, envelope: 0 }, context }, [
    {
      label: 'Cutoff and resonance',
      x: number('cutoff'),
      y: number('resonance') * RESONANCE_DB,
      pullX: dragEffect(filterParams, values, context, 'cutoff', 'times'),
      pullY: dragEffect(filterParams, values, context, 'resonance', 'add', 1 / RESONANCE_DB),
    },
  ]);
}

export const filterImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
