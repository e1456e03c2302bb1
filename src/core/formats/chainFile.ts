import * as z from 'zod';
import { findEffect, EFFECTS } from '../effects/catalogue';
import { parseValue } from '../params/parse';
import type { Param, ParamValue, ValueContext } from '../params/param';
import { presetValues } from '../piece/edits/chain';
import type { Lane, Slot } from '../piece/piece';
import { laneSchema } from '../piece/piece';

const valueSchema = z.union([z.number(), z.string(), z.boolean()]);

export const chainFileSchema = z.strictObject({
  chain: z.array(
    z.strictObject({
      effect: z.string(),
      preset: z.string().optional(),
      params: z.record(z.string(), valueSchema).optional(),
      on: z.boolean().optional(),
    }),
  ),
});

/** Moves for `process`: a lane for each parameter, the effect named by its place in the chain, from 0. */
export const laneFileSchema = z.strictObject({
  lanes: z.array(z.strictObject({ effect: z.number().int().min(0), param: z.string(), unit: laneSchema.shape.unit.optional(), points: laneSchema.shape.points })),
});

/** What hands did, for `process`: at a time, a parameter of an effect takes a value. */
export const eventFileSchema = z.strictObject({
  events: z.array(z.strictObject({ seconds: z.number().min(0), effect: z.number().int().min(0), param: z.string(), value: valueSchema })),
});

export class BadData extends Error {}

/**
 * A chain file as slots with every value set. What is not named takes the preset's value, else the default.
 * Naming `mix` chooses the one rail; naming `dry` or `wet` the two levels, unless `balance` says otherwise.
 * @throws BadData with the effect, the parameter and what it accepts
 */
export function readChain(file: unknown, context: ValueContext): Slot[] {
  const result = chainFileSchema.safeParse(file);
  if (!result.success) throw new BadData(`The chain file is not understood: ${describeIssue(result.error)}.`);
  return result.data.chain.map((entry, index) => {
    const definition = findEffect(entry.effect);
    if (!definition) throw new BadData(`There is no effect called "${entry.effect}". There are: ${EFFECTS.map((effect) => effect.id).join(', ')}.`);
    const preset = definition.presets.find((candidate) => candidate.id === (entry.preset ?? 'neutral'));
    if (!preset) throw new BadData(`${definition.name} has no preset "${entry.preset}". There are: ${definition.presets.map((candidate) => candidate.id).join(', ')}.`);
    const given = entry.params ?? {};
    const values = presetValues(entry.effect, preset.id);
    if (entry.preset === undefined) values.balance = 'levels';
    if ('mix' in given) values.balance = 'mix';
    if ('dry' in given || 'wet' in given) values.balance = 'levels';
    for (const [id, value] of Object.entries(given)) {
      values[id] = readValue(definition.params[id], `${entry.effect}.${id}`, value, Object.keys(definition.params), context);
    }
    return { id: `slot-${index}`, effect: entry.effect, preset: preset.id, on: entry.on ?? true, values };
  });
}

function readValue(param: Param | undefined, name: string, value: ParamValue, known: readonly string[], context: ValueContext): ParamValue {
  if (!param) throw new BadData(`There is no parameter ${name}. There are: ${known.join(', ')}.`);
  if (typeof value === 'string') {
    const parsed = parseValue(param, value, context);
    if (!parsed.ok) throw new BadData(`${name}: ${parsed.message}`);
    return parsed.value;
  }
  if (typeof value === 'number' && param.kind === 'number') {
    if (!(value >= param.min && value <= param.max)) throw new BadData(`${name} goes from ${param.min} to ${param.max}; ${value} lies outside.`);
    return value;
  }
  if (typeof value === 'boolean' && param.kind === 'toggle') return value;
  throw new BadData(`${name} does not take ${JSON.stringify(value)}.`);
}

/** Lanes of a moves file, tied to the slots of a chain on `channel`. */
export function readLanes(file: unknown, slots: readonly Slot[], channel: string): Lane[] {
  const result = laneFileSchema.safeParse(file);
  if (!result.success) throw new BadData(`The moves file is not understood: ${describeIssue(result.error)}.`);
  return result.data.lanes.map((lane, index) => {
    const slot = slots[lane.effect];
    if (!slot || !findEffect(slot.effect)?.params[lane.param]) throw new BadData(`Lane ${index + 1} names effect ${lane.effect}, "${lane.param}", which is not in the chain.`);
    return { id: `lane-${index}`, target: { channel, effect: slot.id, param: lane.param }, unit: lane.unit ?? 'own', on: true, points: lane.points };
  });
}

export function describeIssue(error: z.ZodError): string {
  const issue = error.issues[0];
  return issue ? `${issue.path.join('.') || 'the whole'}: ${issue.message}` : 'unknown';
}
