import { commonParams } from './common';
import type { Params } from '../params/param';

/** Index of each parameter of an effect among the values that its processor is given. */
export function paramIndices<P extends Params>(params: P): Readonly<Record<keyof P, number>> {
  const order = Object.keys({ ...commonParams, ...params });
  return Object.fromEntries(Object.keys(params).map((id) => [id, order.indexOf(id)])) as Record<keyof P, number>;
}
