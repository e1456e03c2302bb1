import type { Draft } from 'immer';
import { current } from 'immer';
import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelName, findSlot, keptOf, slotsIn } from '../find';
import { MAIN, MAX_KEPT, type Piece, type Slot } from '../piece';
import { copyOf, dropLanes } from './chain';
import { draftChannel } from './channels';

type Holder = Pick<Draft<Piece>['main'], 'chain' | 'kept'>;

const holder = (draft: Draft<Piece>, channel: string): Holder =>
  channel === MAIN ? draft.main : draftChannel(draft, channel);

const where = { channel: z.string(), id: z.string().min(1).max(64) };

/** Stores the present chain, to be compared with others. */
export const keepSetting = defineEdit({
  name: 'keepSetting',
  args: z.strictObject({ ...where, called: z.string().trim().min(1).max(120) }),
  label: ({ channel, called }, before) => `Keep ${channelName(before, channel)} as ${called}`,
  apply: (draft, { channel, id, called }) => {
    const held = holder(draft, channel);
    const kept = (held.kept ??= []);
    if (kept.length >= MAX_KEPT)
      throw new EditRefused(`${MAX_KEPT} settings can be kept of a channel. Let one go first.`);
    kept.push({ id, name: called, chain: held.chain.map((slot) => copyOf(current(slot), slot.id)) });
  },
});

export const dropKept = defineEdit({
  name: 'dropKept',
  args: z.strictObject(where),
  label: ({ channel, id }, before) => `Let go of ${keptName(before, channel, id)}`,
  apply: (draft, { channel, id }) => {
    const held = holder(draft, channel);
    held.kept = (held.kept ?? []).filter((kept) => kept.id !== id);
  },
});

/** Replaces the chain by a stored variant; moves of effects that are not in it are removed. */
export const takeKept = defineEdit({
  name: 'takeKept',
  args: z.strictObject(where),
  label: ({ channel, id }, before) => `${channelName(before, channel)}: take ${keptName(before, channel, id)}`,
  apply: (draft, { channel, id }) => {
    const held = holder(draft, channel);
    const kept = held.kept?.find((candidate) => candidate.id === id);
    if (!kept) throw new EditRefused('That setting is no longer kept.');
    setChain(
      draft,
      channel,
      kept.chain.map((slot) => copyOf(current(slot), slot.id)),
    );
  },
});

/** Replaces a channel's whole chain. An effect that is on another channel by now gets a new id. */
function setChain(draft: Draft<Piece>, channel: string, chain: readonly Slot[]): void {
  const held = holder(draft, channel);
  const staying = new Set(slotsIn(chain).map(({ id }) => id));
  dropLanes(
    draft,
    slotsIn(held.chain)
      .filter(({ id }) => !staying.has(id))
      .map((slot) => ({ ...slot, wetPath: [], strands: [] })),
  );
  held.chain = [];
  const others = [...draft.tracks, ...draft.returns]
    .map(({ id }) => id)
    .concat(MAIN)
    .filter((id) => id !== channel);
  held.chain = chain.map((slot, i) =>
    others.some((id) => findSlot(draft, id, slot.id)) ? copyOf(slot, `${slot.id.slice(0, 40)}-k${i}`) : slot,
  );
}

const keptName = (piece: Piece, channel: string, id: string): string =>
  keptOf(piece, channel).find((kept) => kept.id === id)?.name ?? 'a kept setting';
