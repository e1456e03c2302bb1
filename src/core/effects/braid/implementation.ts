import type { EffectImplementation } from '../implementation';
import type { BraidPicture } from '../pictures';
import { resolveNumber } from '../../params/resolve';
import type { NumberParam, ParamValues, ValueContext } from '../../params/param';
import { braidParams, MAX_STRANDS } from './params';
import { BraidProcessor } from './processor';

const create = (sampleRate: number): BraidProcessor => new BraidProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): BraidPicture {
  const number = (id: string): number => resolveNumber(braidParams[id] as NumberParam, values[id] as number, context);
  return {
    kind: 'braid',
    plays: values.plays === 'one' ? number('chosen') : null,
    pattern: values.plays === 'pattern',
    strands: Array.from({ length: MAX_STRANDS }, (_, i) => ({
      place: i + 1,
      input: String(values[`input${i + 1}`]),
      level: number(`level${i + 1}`),
      pan: number(`pan${i + 1}`),
      alignMs: number(`align${i + 1}`),
    })),
  };
}

export const braidImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
