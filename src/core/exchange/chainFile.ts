import * as z from 'zod';
import { effectOf, findEffect, EFFECTS } from '../effects/catalogue';
import type { EffectDefinition } from '../effects/define';
import { MAX_STRANDS } from '../effects/braid/params';
import { parseValue } from '../params/parse';
import type { Param, ParamValue, ValueContext } from '../params/param';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Slot } from '../piece/piece';
import { laneSchema } from '../piece/piece';

const valueSchema = z.union([z.number(), z.string(), z.boolean()]);

interface ChainEntry {
  readonly effect: string;
  readonly preset?: string | undefined;
  readonly params?: Readonly<Record<string, ParamValue>> | undefined;
  readonly on?: boolean | undefined;
  /** Effects on its wet sound alone. */
  readonly wetPath?: readonly ChainEntry[] | undefined;
  /** What is in a braid, from the first place on; without it, what its preset brings. */
  readonly strands?:
    readonly { readonly name?: string | undefined; readonly chain: readonly ChainEntry[] }[] | undefined;
}

const entrySchema: z.ZodType<ChainEntry> = z.lazy(() =>
  z.strictObject({
    effect: z.string(),
    preset: z.string().optional(),
    params: z.record(z.string(), valueSchema).optional(),
    on: z.boolean().optional(),
    wetPath: z.array(entrySchema).optional(),
    strands: z
      .array(z.strictObject({ name: z.string().optional(), chain: z.array(entrySchema) }))
      .min(1)
      .max(MAX_STRANDS)
      .optional(),
  }),
);

export const chainFileSchema = z.strictObject({ chain: z.array(entrySchema) });

/** Moves for `process`: a lane for each parameter, the effect given by its index in the chain, from 0. */
export const laneFileSchema = z.strictObject({
  lanes: z.array(
    z.strictObject({
      effect: z.number().int().min(0),
      param: z.string(),
      unit: laneSchema.shape.unit.optional(),
      points: laneSchema.shape.points,
    }),
  ),
});

/** Events for `process`: at a time, a parameter of an effect takes a value. */
export const eventFileSchema = z.strictObject({
  events: z.array(
    z.strictObject({
      seconds: z.number().min(0),
      effect: z.number().int().min(0),
      param: z.string(),
      value: valueSchema,
    }),
  ),
});

export class BadData extends Error {}

/**
 * A chain file as slots with every value set. What is not named takes the preset's value, else the default. Naming
 * `mix` chooses the one rail, by the law of the effect; naming `dry` or `wet` the two levels, unless `balance` says
 * otherwise.
 * @throws BadData with the effect, the parameter and what it accepts
 */
export function readChain(file: unknown, context: ValueContext): Slot[] {
  const result = chainFileSchema.safeParse(file);
  if (!result.success) throw new BadData(`The chain file is not understood: ${describeIssue(result.error)}.`);
  return result.data.chain.map((entry, index) => readEntry(entry, `slot-${index}`, context));
}

function readEntry(entry: ChainEntry, id: string, context: ValueContext): Slot {
  const definition = findEffect(entry.effect);
  if (!definition)
    throw new BadData(
      `There is no effect called "${entry.effect}". There are: ${EFFECTS.map((effect) => effect.id).join(', ')}.`,
    );
  const preset = definition.presets.find((candidate) => candidate.id === (entry.preset ?? 'neutral'));
  if (!preset)
    throw new BadData(
      `${definition.name} has no preset "${entry.preset}". There are: ${definition.presets.map((candidate) => candidate.id).join(', ')}.`,
    );
  if (entry.strands && definition.maxStrands === undefined)
    throw new BadData(`Only a braid has strands; ${entry.effect} has none.`);
  const given = entry.params ?? {};
  const slot = newSlot(id, entry.effect, preset.id);
  const { values } = slot;
  if (entry.preset === undefined) values.balance = 'levels';
  if ('mix' in given) values.balance = definition.params.balance!.initial;
  if ('dry' in given || 'wet' in given) values.balance = 'levels';
  for (const [param, value] of Object.entries(given)) {
    values[param] = readValue(
      ownParam(definition, param),
      `${entry.effect}.${param}`,
      value,
      Object.keys(definition.params),
      context,
    );
  }
  const inner = (entries: readonly ChainEntry[], where: string): Slot[] =>
    entries.map((one, index) => readEntry(one, `${id}-${where}-${index}`, context));
  return {
    ...slot,
    on: entry.on ?? true,
    ...(entry.wetPath ? { wetPath: inner(entry.wetPath, 'wet') } : {}),
    ...(entry.strands
      ? {
          strands: entry.strands.map(({ name, chain }, index) => ({
            place: index + 1,
            name: name ?? `Strand ${index + 1}`,
            chain: inner(chain, `${index + 1}`),
          })),
        }
      : {}),
  };
}

/**
 * A value of a file as one of a parameter.
 * @param name of the effect and the parameter, for the message  @throws BadData
 */
export function readValue(
  param: Param | undefined,
  name: string,
  value: ParamValue,
  known: readonly string[],
  context: ValueContext,
): ParamValue {
  if (!param) throw new BadData(`There is no parameter ${name}. There are: ${known.join(', ')}.`);
  if (typeof value === 'string') {
    const parsed = parseValue(param, value, context);
    if (!parsed.ok) throw new BadData(`${name}: ${parsed.message}`);
    return parsed.value;
  }
  if (typeof value === 'number' && param.kind === 'number') {
    if (!(value >= param.min && value <= param.max))
      throw new BadData(`${name} goes from ${param.min} to ${param.max}; ${value} lies outside.`);
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
    const param = slot && ownParam(effectOf(slot.effect), lane.param);
    if (!param)
      throw new BadData(`Lane ${index + 1} names effect ${lane.effect}, "${lane.param}", which is not in the chain.`);
    for (const { value } of lane.points) checkPoint(param, lane, value);
    return {
      id: `lane-${index}`,
      target: { kind: 'effect', channel, effect: slot.id, param: lane.param },
      unit: lane.unit ?? 'own',
      on: true,
      points: lane.points,
    };
  });
}

type LaneEntry = z.infer<typeof laneFileSchema>['lanes'][number];

/** @throws BadData when a point is where its parameter does not go */
function checkPoint(param: Param, lane: LaneEntry, value: number): void {
  if (lane.unit === 'beats' && !(param.kind === 'number' && param.sync))
    throw new BadData(`${lane.param} is no time: its lane cannot be in beats.`);
  if (lane.unit === 'beats') {
    if (value >= 0) return;
    throw new BadData(`${lane.param} cannot be ${value} beats.`);
  }
  const [min, max] =
    param.kind === 'number' ? [param.min, param.max] : [0, param.kind === 'choice' ? param.options.length - 1 : 1];
  if (!(value >= min && value <= max))
    throw new BadData(`${lane.param} goes from ${min} to ${max}; ${value} in its lane lies outside.`);
}

/** A parameter by its name; not what every object inherits. */
export const ownParam = ({ params }: Pick<EffectDefinition, 'params'>, name: string): Param | undefined =>
  Object.hasOwn(params, name) ? params[name] : undefined;

export function describeIssue(error: z.ZodError): string {
  const issue = error.issues[0];
  return issue ? `${issue.path.join('.') || 'the whole'}: ${issue.message}` : 'unknown';
}
