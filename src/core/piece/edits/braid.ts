import type { Draft } from 'immer';
import * as z from 'zod';
import { MAX_STRANDS, strandGroup } from '../../effects/braid/params';
import { effectOf } from '../../effects/catalogue';
import { defineEdit, EditRefused } from '../edit';
import { findSlot } from '../find';
import type { Piece, Strand } from '../piece';
import { dropLanes, draftSlot } from './chain';
import { dropTargets } from './targets';

const where = { channel: z.string(), slot: z.string() };
const strand = { ...where, place: z.number().int().min(1).max(MAX_STRANDS) };
const name = z.string().trim().min(1).max(120);

/** The parameters of a strand's position. */
const ownParams = (effect: string, place: number): string[] =>
  Object.entries(effectOf(effect).params).flatMap(([id, param]) => (param.group === strandGroup(place) ? [id] : []));

function draftBraid(
  draft: Draft<Piece>,
  channel: string,
  slotId: string,
): { effect: string; strands: Draft<Strand>[]; values: Record<string, number | string | boolean> } {
  const { slot } = draftSlot(draft, channel, slotId);
  if (effectOf(slot.effect).maxStrands === undefined) throw new EditRefused('Only a braid has strands.');
  return { effect: slot.effect, strands: (slot.strands ??= []), values: slot.values };
}

function draftStrand(draft: Draft<Piece>, channel: string, slotId: string, place: number): Draft<Strand> {
  const found = draftBraid(draft, channel, slotId).strands.find((candidate) => candidate.place === place);
  if (!found) throw new EditRefused('That strand is no longer in the braid.');
  return found;
}

const strandName = (piece: Piece, channel: string, slot: string, place: number): string =>
  findSlot(piece, channel, slot)?.strands?.find((candidate) => candidate.place === place)?.name ?? 'strand';

/** Adds an empty strand at the first free position, at the level of a new one. */
export const addStrand = defineEdit({
  name: 'addStrand',
  args: z.strictObject({ ...where, called: name }),
  label: ({ called }) => `Lay strand ${called}`,
  apply: (draft, { channel, slot, called }) => {
    const { effect, strands, values } = draftBraid(draft, channel, slot);
    const place = Array.from({ length: MAX_STRANDS }, (_, i) => i + 1).find(
      (candidate) => !strands.some((laid) => laid.place === candidate),
    );
    if (place === undefined)
      throw new EditRefused(`A braid holds ${MAX_STRANDS} strands. Put another braid into one of them for more.`);
    strands.push({ place, name: called, chain: [] });
    strands.sort((a, b) => a.place - b.place);
    for (const id of ownParams(effect, place)) values[id] = effectOf(effect).params[id]!.initial;
  },
});

/** Takes a strand out with its effects and all their moves. */
export const removeStrand = defineEdit({
  name: 'removeStrand',
  args: z.strictObject(strand),
  label: ({ channel, slot, place }, before) => `Take out strand ${strandName(before, channel, slot, place)}`,
  apply: (draft, { channel, slot, place }) => {
    const { effect, strands } = draftBraid(draft, channel, slot);
    const gone = draftStrand(draft, channel, slot, place);
    if (strands.length < 2)
      throw new EditRefused('A braid keeps one strand at least. Remove the braid to be rid of it.');
    dropLanes(draft, gone.chain);
    const own = new Set(ownParams(effect, place));
    dropTargets(draft, (target) => target.kind === 'effect' && target.effect === slot && own.has(target.param));
    strands.splice(
      strands.findIndex((candidate) => candidate.place === place),
      1,
    );
  },
});

export const renameStrand = defineEdit({
  name: 'renameStrand',
  args: z.strictObject({ ...strand, called: name }),
  label: ({ called }) => `Call a strand ${called}`,
  apply: (draft, { channel, slot, place, called }) => {
    draftStrand(draft, channel, slot, place).name = called;
  },
});
