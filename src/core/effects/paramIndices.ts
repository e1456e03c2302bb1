import { commonParams } from './common';
import type { Params } from '../params/param';

/** Where each parameter of an effect lies in the row of values that travels to its processor. */
export function paramIndices<P extends Params>(params: P): Readonly<Record<keyof P, number>> {
  const order = Object.keys({ ...commonParams, ...params });
  return Object.fromEntries(Object.keys(params).map((id) => [id, order.indexOf(id)])) as Record<keyof P, number>;
}
