import { current, type Draft } from 'immer';
import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelIds, channelName, channelOfTarget, slotsIn } from '../find';
import { nameSchema } from '../fields';
import type { Link, Target, Track } from '../piece';
import { carryLinks } from './carryLinks';
import { copyOf } from './chain';
import { draftTrack } from './channels';

/** Changes the order in which tracks are shown and exported. They sound the same in any order. */
export const moveTrack = defineEdit({
  name: 'moveTrack',
  args: z.strictObject({ track: z.string(), to: z.number().int().min(0) }),
  label: ({ track, to }, before) => `Move ${channelName(before, track)} to position ${to + 1}`,
  apply: (draft, { track, to }) => {
    const moved = current(draftTrack(draft, track));
    draft.tracks.splice(
      draft.tracks.findIndex(({ id }) => id === track),
      1,
    );
    draft.tracks.splice(to, 0, moved as Draft<Track>);
  },
});

/** Puts a copy of a track after it, with its clips, effects, sends, moves and links. */
export const duplicateTrack = defineEdit({
  name: 'duplicateTrack',
  args: z.strictObject({ track: z.string(), id: z.string().min(1).max(40), called: nameSchema }),
  label: ({ track }, before) => `Duplicate ${channelName(before, track)}`,
  apply: (draft, { track, id, called }) => {
    if (channelIds(draft).includes(id)) throw new EditRefused('That track is in the piece already.');
    const from = current(draftTrack(draft, track)) as Track;
    const chain = from.chain.map((slot, i) => copyOf(slot, `${id}-${i}`));
    const clips = from.clips.map((clip, i) => ({ ...clip, id: `${id}-clip${i}` }));
    draft.tracks.splice(draft.tracks.findIndex((one) => one.id === track) + 1, 0, {
      ...from,
      id,
      name: called,
      clips,
      chain,
    } as Draft<Track>);
    const slots = new Map(slotsIn(from.chain).map((slot, i) => [slot.id, slotsIn(chain)[i]!.id]));
    const retargeted = (target: Target): Target =>
      target.kind === 'effect'
        ? { ...target, channel: id, effect: slots.get(target.effect) ?? target.effect }
        : ({ ...target, channel: id } as Target);
    const own = current(draft.lanes).filter(({ target }) => channelOfTarget(target) === track);
    own.forEach((lane, i) => draft.lanes.push({ ...lane, id: `${id}-lane${i}`, target: retargeted(lane.target) }));
    const links = current(draft.links) as readonly Link[];
    carryLinks(draft, links, from.chain, chain, id);
    links
      .filter(({ target }) => target.kind !== 'effect' && channelOfTarget(target) === track)
      .forEach((link, i) => draft.links.push({ ...link, id: `${id}-link${i}`, target: retargeted(link.target) }));
  },
});
