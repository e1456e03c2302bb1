import type { Params, ParamValues, ValueContext } from '../params/param';
import { resolveNumber } from '../params/resolve';
import type { Pull } from './pictures';

/** The numbers of an effect's parameters with these values, in their own units. */
export function numbersOf(params: Params, values: ParamValues, context: ValueContext): (id: string) => number {
  return (id) => {
    const param = params[id];
    return param?.kind === 'number' ? resolveNumber(param, values[id] ?? param.initial, context) : 0;
  };
}

/** Effect of a drag on a picture on a parameter. */
export function dragEffect(
  params: Params,
  values: ParamValues,
  context: ValueContext,
  id: string,
  by: Pull['by'],
  scale = 1,
): Pull | null {
  const param = params[id];
  if (param?.kind !== 'number') return null;
  return {
    param: id,
    value: numbersOf(params, values, context)(id),
    by,
    scale,
    min: param.min,
    max: param.max,
    time: param.sync === 'time',
  };
}
