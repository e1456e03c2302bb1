import * as z from 'zod';
import { effectOf } from '../../effects/catalogue';
import type { ReadyField } from '../../effects/define';
import { settingAt } from '../../params/notches';
import { defineEdit, EditRefused } from '../edit';
import { channelName, contextOf, paramOf } from '../find';
import { effectSchema, snapshotSchema, type Piece, type Slot } from '../piece';
import { axesOf, fieldSchema, MAX_FIELDS, type FieldAxis, type PlayField } from '../playField';
import { draftChainAt, fitted, insertSlots, newSlot } from './chain';
import { setBase } from './setBase';

const nameOf = (piece: Piece, id: string): string => piece.fields?.find((field) => field.id === id)?.name ?? 'a field';

function checkTargets(piece: Piece, field: PlayField): void {
  if (axesOf(field).some(({ target }) => !paramOf(piece, target)))
    throw new EditRefused('What the field would move is no longer in the piece.');
}

/** Adds a field, with the effect that it plays where it brings one: at the end of that channel's chain. */
export const addField = defineEdit({
  name: 'addField',
  args: z.strictObject({
    field: fieldSchema,
    effect: z.strictObject({ channel: z.string(), slot: effectSchema }).optional(),
  }),
  label: ({ field, effect }, before) =>
    `Field ${field.name}${effect ? ` on ${channelName(before, effect.channel)}` : ''}`,
  apply: (draft, { field, effect }) => {
    const fields = (draft.fields ??= []);
    if (fields.length >= MAX_FIELDS)
      throw new EditRefused(`A piece has ${MAX_FIELDS} fields at most. Remove one first.`);
    if (fields.some(({ id }) => id === field.id)) throw new EditRefused('That field is in the piece already.');
    if (effect) {
      const { channel, slot } = effect;
      const chain = draftChainAt(draft, channel, undefined);
      insertSlots(draft, chain, chain.length, [fitted(draft, channel, slot)]);
    }
    checkTargets(draft as Piece, field);
    fields.push(field);
  },
});

export const setField = defineEdit({
  name: 'setField',
  args: z.strictObject({ field: z.string(), change: fieldSchema.omit({ id: true }).partial() }),
  label: ({ field, change }, before) =>
    change.name === undefined ? `Set ${nameOf(before, field)}` : `Call field ${change.name}`,
  apply: (draft, { field, change }) => {
    const found = draft.fields?.find(({ id }) => id === field);
    if (!found) throw new EditRefused('That field is no longer in the piece.');
    Object.assign(found, change);
    checkTargets(draft as Piece, found as PlayField);
  },
});

/** Removes a field; the effect that it played stays. */
export const removeField = defineEdit({
  name: 'removeField',
  args: z.strictObject({ field: z.string() }),
  label: ({ field }, before) => `Remove field ${nameOf(before, field)}`,
  apply: (draft, { field }) => {
    draft.fields = (draft.fields ?? []).filter(({ id }) => id !== field);
  },
});

/** Sets several base values in one edit, so that one undo reverts all. */
export const leaveValues = defineEdit({
  name: 'leaveValues',
  args: z.strictObject({ name: z.string().min(1).max(120), values: snapshotSchema.shape.values }),
  label: ({ name }) => `Play ${name}`,
  apply: (draft, { values }) => {
    for (const one of values) if (paramOf(draft as Piece, one.target)) setBase(draft, one);
  },
});

/** A ready-made field with the effect that it plays, at rest in the centre. */
export function readyField(
  piece: Piece,
  channel: string,
  effect: string,
  ready: ReadyField,
  ids: { readonly field: string; readonly slot: string },
): { readonly field: PlayField; readonly effect: { readonly channel: string; readonly slot: Slot } } {
  const { params } = effectOf(effect);
  const axis = ({ param, ...part }: ReadyField['across']): FieldAxis => ({
    target: { kind: 'effect', channel, effect: ids.slot, param },
    ...part,
  });
  const rests = [[ready.across, 0.5], [ready.up, 0.5], ...(ready.away ? ([[ready.away, 0]] as const) : [])] as const;
  const values = Object.fromEntries(
    rests.map(([{ param, from, to, notes }, at]) => [
      param,
      settingAt(params[param]!, from + (to - from) * at, contextOf(piece), notes ? 1 : 0),
    ]),
  );
  const again = (piece.fields ?? []).filter(
    ({ name }) => name === ready.name || name.startsWith(`${ready.name} `),
  ).length;
  return {
    field: {
      id: ids.field,
      name: again > 0 ? `${ready.name} ${again + 1}` : ready.name,
      across: axis(ready.across),
      up: axis(ready.up),
      ...(ready.away ? { away: axis(ready.away) } : {}),
      lift: 'glide',
      liftBeats: 1,
      grid: 'free',
    },
    effect: { channel, slot: newSlot(ids.slot, effect, ready.preset, { ...ready.values, ...values }) },
  };
}
