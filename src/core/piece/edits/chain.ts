import type { Draft } from 'immer';
import * as z from 'zod';
import { effectOf } from '../../effects/catalogue';
import { initialValues } from '../../params/resolve';
import { paramsSchema } from '../../params/schema';
import { formatValue } from '../../params/format';
import type { ParamValue, ParamValues } from '../../params/param';
import { defineEdit, EditRefused } from '../edit';
import { channelName, contextOf, findSlot } from '../find';
import { effectSchema, MAIN, type Piece, type Slot } from '../piece';
import { draftChannel } from './channels';

/** On a return the untreated sound is already on its own way to the main output. */
const WHOLLY_WET = { balance: 'mix', mix: 1 } as const;

const isReturn = (piece: Pick<Piece, 'returns'>, channel: string): boolean => piece.returns.some((candidate) => candidate.id === channel);

/** An effect as it stands on a channel: fully wet by itself on a return. */
export const fitted = (piece: Pick<Piece, 'returns'>, channel: string, slot: Slot): Slot => (isReturn(piece, channel) ? { ...slot, values: { ...slot.values, ...WHOLLY_WET } } : slot);

const where = { channel: z.string(), slot: z.string() };

function draftChain(draft: Draft<Piece>, channel: string): Draft<Slot>[] {
  return channel === MAIN ? draft.main.chain : draftChannel(draft, channel).chain;
}

function draftSlot(draft: Draft<Piece>, channel: string, slotId: string): Draft<Slot> {
  const slot = draftChain(draft, channel).find((candidate) => candidate.id === slotId);
  if (!slot) throw new EditRefused('That effect is no longer in the chain.');
  return slot;
}

const nameOf = (piece: Piece, channel: string, slotId: string): string => {
  const slot = findSlot(piece, channel, slotId);
  return slot ? effectOf(slot.effect).name : 'effect';
};

/** Every value of an effect as a preset leaves it. */
export function presetValues(effectId: string, presetId: string): Record<string, ParamValue> {
  const definition = effectOf(effectId);
  const preset = definition.presets.find((candidate) => candidate.id === presetId);
  if (!preset) throw new EditRefused(`${definition.name} has no preset “${presetId}”.`);
  return { ...initialValues(definition.params), ...preset.values };
}

export const newSlot = (slotId: string, effectId: string, presetId: string, values: ParamValues = {}): Slot => ({
  id: slotId, effect: effectId, preset: presetId, on: true, values: { ...presetValues(effectId, presetId), ...values },
});

export const addEffect = defineEdit({
  name: 'addEffect',
  args: z.strictObject({ channel: z.string(), slot: effectSchema, at: z.number().int().min(0) }),
  label: ({ channel, slot }, before) => `Add ${effectOf(slot.effect).name} to ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, at }) => {
    draftChain(draft, channel).splice(at, 0, fitted(draft, channel, slot));
  },
});

export const removeEffect = defineEdit({
  name: 'removeEffect',
  args: z.strictObject(where),
  label: ({ channel, slot }, before) => `Remove ${nameOf(before, channel, slot)} from ${channelName(before, channel)}`,
  apply: (draft, { channel, slot }) => {
    draftSlot(draft, channel, slot);
    const chain = draftChain(draft, channel);
    chain.splice(chain.findIndex((candidate) => candidate.id === slot), 1);
    draft.lanes = draft.lanes.filter((lane) => lane.target.effect !== slot);
  },
});

export const moveEffect = defineEdit({
  name: 'moveEffect',
  args: z.strictObject({ ...where, to: z.number().int().min(0) }),
  label: ({ channel, slot }, before) => `Move ${nameOf(before, channel, slot)} in ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, to }) => {
    const moved = draftSlot(draft, channel, slot);
    const chain = draftChain(draft, channel);
    const plain = { ...moved };
    chain.splice(chain.findIndex((candidate) => candidate.id === slot), 1);
    chain.splice(to, 0, plain);
  },
});

export const setEffectOn = defineEdit({
  name: 'setEffectOn',
  args: z.strictObject({ ...where, on: z.boolean() }),
  label: ({ channel, slot, on }, before) => `${nameOf(before, channel, slot)} ${on ? 'on' : 'off'} on ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, on }) => {
    draftSlot(draft, channel, slot).on = on;
  },
});

export const setParams = defineEdit({
  name: 'setParams',
  args: z.strictObject({ ...where, values: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])) }),
  label: ({ channel, slot, values }, before) => {
    const found = findSlot(before, channel, slot);
    const [paramId, value] = Object.entries(values)[0] ?? [];
    const param = found && paramId ? effectOf(found.effect).params[paramId] : undefined;
    if (!found || !param || value === undefined) return 'Set';
    return `${effectOf(found.effect).name}: ${param.label.toLowerCase()} ${formatValue(param, value, contextOf(before))}`;
  },
  apply: (draft, { channel, slot, values }) => {
    const target = draftSlot(draft, channel, slot);
    const { params } = effectOf(target.effect);
    for (const [id, value] of Object.entries(values)) {
      if (!params[id]) throw new EditRefused(`${effectOf(target.effect).name} has no parameter “${id}”.`);
      target.values[id] = value;
    }
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
    const target = draftSlot(draft, channel, slot);
    target.values = { ...presetValues(target.effect, preset), ...(isReturn(draft, channel) ? WHOLLY_WET : {}) };
    target.preset = preset;
  },
});

export const duplicateEffect = defineEdit({
  name: 'duplicateEffect',
  args: z.strictObject({ ...where, id: z.string() }),
  label: ({ channel, slot }, before) => `Duplicate ${nameOf(before, channel, slot)} in ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, id }) => {
    const copy = { ...draftSlot(draft, channel, slot), id };
    const chain = draftChain(draft, channel);
    chain.splice(chain.findIndex((candidate) => candidate.id === slot) + 1, 0, copy);
  },
});

/** Puts a copy at the end of another channel's chain. */
export const copyEffect = defineEdit({
  name: 'copyEffect',
  args: z.strictObject({ ...where, to: z.string(), id: z.string() }),
  label: ({ channel, slot, to }, before) => `Copy ${nameOf(before, channel, slot)} to ${channelName(before, to)}`,
  apply: (draft, { channel, slot, to, id }) => {
    const copy: Slot = { ...draftSlot(draft, channel, slot), id };
    draftChain(draft, to).push(fitted(draft, to, copy));
  },
});

/** What of one effect's values means the same in another: a parameter of the same name and kind, within its range. */
function fittingValues(from: Slot, effect: string): Record<string, ParamValue> {
  const [before, after] = [effectOf(from.effect).params, effectOf(effect).params];
  const fits = ([id, value]: readonly [string, ParamValue]): boolean => {
    const [old, next] = [before[id], after[id]];
    if (!old || next?.kind !== old.kind) return false;
    return old.kind !== 'number' || next.kind !== 'number' || (old.unit === next.unit && (typeof value !== 'number' || (value >= next.min && value <= next.max)));
  };
  const usable = Object.entries(from.values).filter(fits);
  return Object.fromEntries(usable.filter(([id, value]) => after[id]?.kind !== 'choice' || paramsSchema({ [id]: after[id] }).safeParse({ [id]: value }).success));
}

/** Another effect in its place: values and moves of parameters that both have stay. */
export const replaceEffect = defineEdit({
  name: 'replaceEffect',
  args: z.strictObject({ ...where, effect: z.string(), preset: z.string() }),
  label: ({ channel, slot, effect }, before) => `Replace ${nameOf(before, channel, slot)} by ${effectOf(effect).name} on ${channelName(before, channel)}`,
  apply: (draft, { channel, slot, effect, preset }) => {
    const target = draftSlot(draft, channel, slot);
    const kept = fittingValues({ ...target, values: { ...target.values } }, effect);
    const chain = draftChain(draft, channel);
    const next = newSlot(slot, effect, preset, kept);
    chain[chain.findIndex((candidate) => candidate.id === slot)] = fitted(draft, channel, { ...next, on: target.on });
    draft.lanes = draft.lanes.filter((lane) => lane.target.effect !== slot || lane.target.param in kept);
  },
});

/** Gives an effect a sound of the piece to work with. */
export const setEffectSound = defineEdit({
  name: 'setEffectSound',
  args: z.strictObject({ ...where, sound: z.string() }),
  label: ({ channel, slot, sound }, before) => `${nameOf(before, channel, slot)}: work with ${before.sounds[sound]?.name ?? 'a sound'}`,
  apply: (draft, { channel, slot, sound }) => {
    if (!draft.sounds[sound]) throw new EditRefused('That sound is no longer in the piece.');
    draftSlot(draft, channel, slot).sound = sound;
  },
});
