import { current, type Draft } from 'immer';
import * as z from 'zod';
import { MAX_STRANDS } from '../../effects/braid/params';
import { effectOf } from '../../effects/catalogue';
import type { PresetStrand } from '../../effects/define';
import { initialValues } from '../../params/resolve';
import { paramsSchema } from '../../params/schema';
import { formatValue } from '../../params/format';
import type { ParamValue, ParamValues } from '../../params/param';
import { defineEdit, EditRefused } from '../edit';
import { chainHolding, chainOf, channelIds, channelName, contextOf, findSlot, slotsIn } from '../find';
import { namedParam } from '../paramName';
import { effectSchema, MAIN, type Piece, type Slot, type Strand } from '../piece';
import { soundSchema, type SoundInfo } from '../soundInfo';
import { carryLinks } from './carryLinks';
import { draftChannel } from './channels';
import { attachWaiting, dropTargets } from './targets';

/** On a return the dry sound reaches the main output by another path. */
const WHOLLY_WET = { balance: 'mix', mix: 1 } as const;

const isReturn = (piece: Pick<Piece, 'returns'>, channel: string): boolean =>
  piece.returns.some((candidate) => candidate.id === channel);

/** An effect as it is put on a channel: fully wet by itself on a return. */
export const fitted = (piece: Pick<Piece, 'returns'>, channel: string, slot: Slot): Slot =>
  isReturn(piece, channel) ? { ...slot, values: { ...slot.values, ...WHOLLY_WET } } : slot;

const where = { channel: z.string(), slot: z.string() };

const valuesSchema = z.record(z.string(), z.union([z.number(), z.string(), z.boolean()]));

/** A chain within an effect: a strand of a braid by its position, or the wet path of any effect (null). */
export const insideSchema = z.strictObject({
  slot: z.string(),
  strand: z.number().int().min(1).max(MAX_STRANDS).nullable(),
});
export type Inside = z.infer<typeof insideSchema>;

/** Maximum depth of nested strands and wet paths. */
const DEEPEST = 4;

function draftChain(draft: Draft<Piece>, channel: string): Draft<Slot>[] {
  return channel === MAIN ? draft.main.chain : draftChannel(draft, channel).chain;
}

/** The chain that holds an effect, at any depth, and the effect. */
export function draftSlot(
  draft: Draft<Piece>,
  channel: string,
  slotId: string,
): { chain: Draft<Slot>[]; index: number; slot: Draft<Slot> } {
  const chain = chainHolding(draftChain(draft, channel), slotId) ?? [];
  const index = chain.findIndex((candidate) => candidate.id === slotId);
  const slot = chain[index];
  if (!slot) throw new EditRefused('That effect is no longer in the chain.');
  return { chain, index, slot };
}

const depthOf = (chain: readonly Slot[], slotId: string): number => {
  for (const slot of chain) {
    if (slot.id === slotId) return 1;
    const inner = Math.max(
      depthOf(slot.wetPath ?? [], slotId),
      ...(slot.strands ?? []).map((strand) => depthOf(strand.chain, slotId)),
      0,
    );
    if (inner > 0) return inner + 1;
  }
  return 0;
};

function draftInside(draft: Draft<Piece>, channel: string, inside: Inside): Draft<Slot>[] {
  const { slot } = draftSlot(draft, channel, inside.slot);
  if (depthOf(draftChain(draft, channel), inside.slot) >= DEEPEST)
    throw new EditRefused(`Chains lie in one another at most ${DEEPEST} deep. Put it into the strand around this one.`);
  if (inside.strand === null) return (slot.wetPath ??= []);
  const strand = slot.strands?.find(({ place }) => place === inside.strand);
  if (!strand) throw new EditRefused('That strand is no longer in the braid.');
  return strand.chain;
}

/** A channel's own chain, or one within an effect of it. */
export const draftChainAt = (draft: Draft<Piece>, channel: string, inside: Inside | undefined): Draft<Slot>[] =>
  inside ? draftInside(draft, channel, inside) : draftChain(draft, channel);

/** Puts effects into a chain; one whose id the piece has already is refused. */
export function insertSlots(draft: Draft<Piece>, chain: Draft<Slot>[], at: number, slots: readonly Slot[]): void {
  const known = new Set(
    channelIds(draft)
      .flatMap((id) => slotsIn(chainOf(draft, id)))
      .map(({ id }) => id),
  );
  if (slotsIn(slots).some(({ id }) => known.has(id))) throw new EditRefused('That effect is in the piece already.');
  chain.splice(at, 0, ...slots);
  attachWaiting(draft);
}

/** The same effect under another id, with all that is within it. */
export function copyOf(slot: Slot, id: string): Slot {
  let count = 0;
  const again = (inner: Slot): Slot => copyOf(inner, `${id.slice(0, 50)}-${(count += 1)}`);
  return {
    ...slot,
    id,
    ...(slot.wetPath ? { wetPath: slot.wetPath.map(again) } : {}),
    ...(slot.strands ? { strands: slot.strands.map((strand) => ({ ...strand, chain: strand.chain.map(again) })) } : {}),
  };
}

/** Removes the moves and links of effects that no longer exist. */
export function dropLanes(draft: Draft<Piece>, gone: readonly Slot[]): void {
  const ids = new Set(slotsIn(gone).map(({ id }) => id));
  dropTargets(draft, (target) => target.kind === 'effect' && ids.has(target.effect));
}

const nameOf = (piece: Piece, channel: string, slotId: string): string => {
  const slot = findSlot(piece, channel, slotId);
  return slot ? effectOf(slot.effect).name : 'effect';
};

/** All values of an effect after a preset is applied. */
export function presetValues(effectId: string, presetId: string): Record<string, ParamValue> {
  const definition = effectOf(effectId);
  const preset = definition.presets.find((candidate) => candidate.id === presetId);
  if (!preset) throw new EditRefused(`${definition.name} has no preset “${presetId}”.`);
  return { ...initialValues(definition.params), ...preset.values };
}

/** An effect from a preset, with the strands of the preset. */
export function newSlot(slotId: string, effectId: string, presetId: string, values: ParamValues = {}): Slot {
  const slot: Slot = {
    id: slotId,
    effect: effectId,
    preset: presetId,
    on: true,
    values: { ...presetValues(effectId, presetId), ...values },
  };
  const strands = presetStrands(slotId, effectId, presetId);
  return strands ? { ...slot, strands } : slot;
}

const EMPTY_STRANDS: readonly PresetStrand[] = [
  { place: 1, name: 'First', chain: [] },
  { place: 2, name: 'Second', chain: [] },
];

/** The strands that an effect begins with; undefined for one that has none. */
function presetStrands(slotId: string, effectId: string, presetId: string): Strand[] | undefined {
  const { presets, maxStrands } = effectOf(effectId);
  if (maxStrands === undefined) return undefined;
  return (presets.find(({ id }) => id === presetId)?.strands ?? EMPTY_STRANDS).map(({ place, name, chain }) => ({
    place,
    name,
    chain: chain.map((one, index) =>
      newSlot(`${slotId.slice(0, 50)}-${place}-${index}`, one.effect, one.preset, one.values),
    ),
  }));
}

export const addEffect = defineEdit({
  name: 'addEffect',
  args: z.strictObject({
    channel: z.string(),
    slot: effectSchema,
    at: z.number().int().min(0),
    inside: insideSchema.optional(),
  }),
  label: ({ channel, slot }, before) => `Add ${effectOf(slot.effect).name} to ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, at, inside }) => {
    insertSlots(draft, draftChainAt(draft, channel, inside), at, [inside ? slot : fitted(draft, channel, slot)]);
  },
});

export const removeEffect = defineEdit({
  name: 'removeEffect',
  args: z.strictObject(where),
  label: ({ channel, slot }, before) => `Remove ${nameOf(before, channel, slot)} from ${channelName(before, channel)}`,
  apply: (draft, { channel, slot }) => {
    const { chain, index, slot: gone } = draftSlot(draft, channel, slot);
    dropLanes(draft, [gone]);
    chain.splice(index, 1);
  },
});

export const moveEffect = defineEdit({
  name: 'moveEffect',
  args: z.strictObject({ ...where, to: z.number().int().min(0) }),
  label: ({ channel, slot }, before) => `Move ${nameOf(before, channel, slot)} in ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, to }) => {
    const { chain, index, slot: moved } = draftSlot(draft, channel, slot);
    const plain = { ...moved };
    chain.splice(index, 1);
    chain.splice(to, 0, plain);
  },
});

export const setEffectOn = defineEdit({
  name: 'setEffectOn',
  args: z.strictObject({ ...where, on: z.boolean() }),
  label: ({ channel, slot, on }, before) =>
    `${nameOf(before, channel, slot)} ${on ? 'on' : 'off'} on ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, on }) => {
    draftSlot(draft, channel, slot).slot.on = on;
  },
});

export const setParams = defineEdit({
  name: 'setParams',
  args: z.strictObject({ ...where, values: valuesSchema }),
  label: ({ channel, slot, values }, before) => {
    const found = findSlot(before, channel, slot);
    const [paramId, value] = Object.entries(values)[0] ?? [];
    const param = found && paramId ? namedParam(found, paramId) : undefined;
    if (!found || !param || value === undefined) return 'Set';
    return `${effectOf(found.effect).name}: ${param.label.toLowerCase()} ${formatValue(param, value, contextOf(before))}`;
  },
  apply: (draft, { channel, slot, values }) => {
    const target = draftSlot(draft, channel, slot).slot;
    const { params, follows } = effectOf(target.effect);
    if (follows && target.values[follows.while] === true && values[follows.while] === false)
      for (const [id, leader] of Object.entries(follows.leaders)) target.values[id] = target.values[leader]!;
    for (const [id, value] of Object.entries(values)) {
      if (!params[id]) throw new EditRefused(`${effectOf(target.effect).name} has no parameter “${id}”.`);
      target.values[id] = value;
    }
  },
});

/** Applies a user preset to an effect; parameters that no longer exist are ignored. */
export const takeOwnPreset = defineEdit({
  name: 'takeOwnPreset',
  args: z.strictObject({ ...where, name: z.string().max(120), values: valuesSchema }),
  label: ({ channel, slot, name }, before) => `${nameOf(before, channel, slot)}: preset ${name}`,
  apply: (draft, { channel, slot, values }) => {
    const target = draftSlot(draft, channel, slot).slot;
    const { params } = effectOf(target.effect);
    for (const [id, value] of Object.entries(values)) if (params[id]) target.values[id] = value;
    target.preset = null;
  },
});

export const choosePreset = defineEdit({
  name: 'choosePreset',
  args: z.strictObject({ ...where, preset: z.string() }),
  label: ({ channel, slot, preset }, before) => {
    const found = findSlot(before, channel, slot);
    const name = found ? effectOf(found.effect).presets.find((candidate) => candidate.id === preset)?.name : undefined;
    return `${nameOf(before, channel, slot)}: preset ${name ?? preset}`;
  },
  apply: (draft, { channel, slot, preset }) => {
    const { chain, slot: target } = draftSlot(draft, channel, slot);
    const onReturn = isReturn(draft, channel) && chain === draftChain(draft, channel);
    target.values = { ...presetValues(target.effect, preset), ...(onReturn ? WHOLLY_WET : {}) };
    target.preset = preset;
    const strands = presetStrands(slot, target.effect, preset);
    if (strands) layStrands(target, strands);
  },
});

/** The values of a user preset, which is not among the effect's own. */
export const takeValues = defineEdit({
  name: 'takeValues',
  args: z.strictObject({ ...where, values: valuesSchema, name: z.string().min(1).max(120) }),
  label: ({ channel, slot, name }, before) => `${nameOf(before, channel, slot)}: preset ${name}`,
  apply: (draft, { channel, slot, values }) => {
    setParams.apply(draft, { channel, slot, values });
    draftSlot(draft, channel, slot).slot.preset = null;
  },
});

/** Puts a preset's strands at positions that are free or empty; strands with effects are kept. */
function layStrands(braid: Draft<Slot>, laid: readonly Strand[]): void {
  const now = (braid.strands ??= []);
  for (const strand of laid) {
    const there = now.find(({ place }) => place === strand.place);
    if (!there) now.push(strand);
    else if (there.chain.length === 0) Object.assign(there, strand);
  }
  now.sort((a, b) => a.place - b.place);
}

export const duplicateEffect = defineEdit({
  name: 'duplicateEffect',
  args: z.strictObject({ ...where, id: z.string() }),
  label: ({ channel, slot }, before) => `Duplicate ${nameOf(before, channel, slot)} in ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, id }) => {
    const { chain, index, slot: original } = draftSlot(draft, channel, slot);
    const from = current(original);
    const copy = copyOf(from, id);
    insertSlots(draft, chain, index + 1, [copy]);
    carryLinks(draft, current(draft).links, [from], [copy], channel);
  },
});

/** Puts a copy at the end of another channel's chain. */
export const copyEffect = defineEdit({
  name: 'copyEffect',
  args: z.strictObject({ ...where, to: z.string(), id: z.string() }),
  label: ({ channel, slot, to }, before) => `Copy ${nameOf(before, channel, slot)} to ${channelName(before, to)}`,
  apply: (draft, { channel, slot, to, id }) => {
    const chain = draftChain(draft, to);
    const from = current(draftSlot(draft, channel, slot).slot);
    const copy = fitted(draft, to, copyOf(from, id));
    insertSlots(draft, chain, chain.length, [copy]);
    carryLinks(draft, current(draft).links, [from], [copy], to);
  },
});

/** Copies an effect to the end of several chains at once. */
export const copyEffects = defineEdit({
  name: 'copyEffects',
  args: z.strictObject({
    ...where,
    copies: z
      .array(z.strictObject({ to: z.string(), id: z.string() }))
      .min(1)
      .max(200),
  }),
  label: ({ channel, slot, copies }, before) =>
    copies.length === 1
      ? `Copy ${nameOf(before, channel, slot)} to ${channelName(before, copies[0]!.to)}`
      : `Copy ${nameOf(before, channel, slot)} to ${copies.length} channels`,
  apply: (draft, { channel, slot, copies }) => {
    for (const copy of copies) copyEffect.apply(draft, { channel, slot, ...copy });
  },
});

/** The values of one effect that apply to another: of parameters with the same name and kind, within range. */
export function fittingValues(from: Pick<Slot, 'effect' | 'values'>, effect: string): Record<string, ParamValue> {
  const [before, after] = [effectOf(from.effect).params, effectOf(effect).params];
  const fits = ([id, value]: readonly [string, ParamValue]): boolean => {
    const [old, next] = [before[id], after[id]];
    if (!old || next?.kind !== old.kind) return false;
    return (
      old.kind !== 'number' ||
      next.kind !== 'number' ||
      (old.unit === next.unit && (typeof value !== 'number' || (value >= next.min && value <= next.max)))
    );
  };
  const usable = Object.entries(from.values).filter(fits);
  return Object.fromEntries(
    usable.filter(
      ([id, value]) =>
        after[id]?.kind !== 'choice' || paramsSchema({ [id]: after[id] }).safeParse({ [id]: value }).success,
    ),
  );
}

/** Replaces an effect: values and moves of parameters that both have are kept. */
export const replaceEffect = defineEdit({
  name: 'replaceEffect',
  args: z.strictObject({ ...where, effect: z.string(), preset: z.string() }),
  label: ({ channel, slot, effect }, before) =>
    `Replace ${nameOf(before, channel, slot)} by ${effectOf(effect).name} on ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, effect, preset }) => {
    const { chain, index, slot: target } = draftSlot(draft, channel, slot);
    const kept = fittingValues({ ...target, values: { ...target.values } }, effect);
    dropLanes(
      draft,
      (target.strands ?? []).flatMap((strand) => strand.chain),
    );
    const next = {
      ...newSlot(slot, effect, preset, kept),
      on: target.on,
      ...(target.wetPath ? { wetPath: target.wetPath } : {}),
    };
    chain[index] = chain === draftChain(draft, channel) ? fitted(draft, channel, next) : next;
    dropTargets(draft, (gone) => gone.kind === 'effect' && gone.effect === slot && !(gone.param in kept));
  },
});

/** Lets an effect listen to another track; null lets it listen to none. */
export const setEffectSide = defineEdit({
  name: 'setEffectSide',
  args: z.strictObject({ ...where, side: z.string().nullable() }),
  label: ({ channel, slot, side }, before) =>
    `${nameOf(before, channel, slot)}: listen to ${before.tracks.find(({ id }) => id === side)?.name ?? 'itself'}`,
  apply: (draft, { channel, slot, side }) => {
    if (side !== null && !draft.tracks.some(({ id }) => id === side))
      throw new EditRefused('That track is no longer in the piece.');
    if (side === channel) throw new EditRefused('It hears its own track already: choose another one.');
    draftSlot(draft, channel, slot).slot.side = side ?? undefined;
  },
});

/** Sets the sound that an effect uses: one of the piece, or a new one with its description. */
/** Sets the used length of an effect's own sound to all of it, up to the parameter's maximum. */
function useWholeSound(slot: Draft<Slot>, { frames, sampleRate }: SoundInfo): void {
  const { editorParts, params } = effectOf(slot.effect);
  const id = editorParts?.find(({ length }) => length !== undefined)?.length;
  const param = id === undefined ? undefined : params[id];
  if (id !== undefined && param?.kind === 'number')
    slot.values[id] = Math.max(param.min, Math.min(param.max, Math.ceil((1000 * frames) / sampleRate)));
}

export const setEffectSound = defineEdit({
  name: 'setEffectSound',
  args: z.strictObject({ ...where, sound: z.string(), info: soundSchema.optional() }),
  label: ({ channel, slot, sound, info }, before) =>
    `${nameOf(before, channel, slot)}: work with ${(info ?? before.sounds[sound])?.name ?? 'a sound'}`,
  apply: (draft, { channel, slot, sound, info }) => {
    if (info) draft.sounds[sound] = info;
    if (!draft.sounds[sound]) throw new EditRefused('That sound is no longer in the piece.');
    const found = draftSlot(draft, channel, slot).slot;
    found.sound = sound;
    useWholeSound(found, draft.sounds[sound]);
  },
});
