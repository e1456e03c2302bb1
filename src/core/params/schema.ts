import * as z from 'zod';
import { parseValue } from './parse';
import { PLAIN_CONTEXT, type Param, type Params, type ParamValue } from './param';

/** Accepts a stored value: a figure inside the range, a known choice, a note value or a count of samples. */
export function paramSchema(param: Param): z.ZodType<ParamValue> {
  if (param.kind === 'toggle') return z.boolean();
  if (param.kind === 'choice') return z.enum(param.options.map((option) => option.id));
  const number = z.number().min(param.min).max(param.max);
  if (!param.sync) return number;
  const synced = z.string().refine((text) => {
    const parsed = parseValue({ ...param, min: -Infinity, max: Infinity }, text, PLAIN_CONTEXT);
    return parsed.ok && typeof parsed.value === 'string';
  }, 'is neither a note value nor a count of samples');
  return z.union([number, synced]);
}

const SCHEMAS = new WeakMap<Params, z.ZodType<Record<string, ParamValue>>>();

/**
 * The values of a set of parameters: every one may be left out; unknown names are refused. Made once for each set,
 * which takes milliseconds.
 */
export function paramsSchema(params: Params): z.ZodType<Record<string, ParamValue>> {
  const known = SCHEMAS.get(params);
  if (known) return known;
  const shape = Object.fromEntries(Object.entries(params).map(([id, param]) => [id, paramSchema(param).optional()]));
  const made = z.strictObject(shape) as unknown as z.ZodType<Record<string, ParamValue>>;
  SCHEMAS.set(params, made);
  return made;
}
