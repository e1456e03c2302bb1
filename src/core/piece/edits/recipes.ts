import * as z from 'zod';
import { modulatorSchema } from '../../automation/modulator';
import { defineEdit, EditRefused } from '../edit';
import { chainOf, channelIds } from '../find';
import { clipSchema, effectSchema, laneSchema, linkSchema, soundInfoSchema, trackSchema, type Piece } from '../piece';
import { addEffect } from './chain';
import { draftTrack, makeRoom } from './channels';
import { putLane } from './lanes';

/**
 * Everything that a recipe adds: new tracks, clips cut to make room, effects at the end of chains, and the moves on
 * them; one undo removes all of it.
 */
export const layParts = defineEdit({
  name: 'layParts',
  args: z.strictObject({
    what: z.string().min(1).max(60),
    where: z.string().max(120),
    tracks: z.array(trackSchema).max(8),
    clips: z.array(z.strictObject({ track: z.string(), clips: z.array(clipSchema).max(2000) })).max(8),
    slots: z.array(z.strictObject({ channel: z.string(), slot: effectSchema })).max(16),
    lanes: z.array(laneSchema).max(32),
    modulators: z.array(modulatorSchema).max(8).optional(),
    links: z.array(linkSchema).max(8).optional(),
    sounds: soundInfoSchema,
  }),
  label: ({ what, where }) => `${what}: ${where}`,
  apply: (draft, { tracks, clips, slots, lanes, sounds, modulators = [], links = [] }) => {
    Object.assign(draft.sounds, sounds);
    for (const track of tracks) {
      if (channelIds(draft).includes(track.id)) throw new EditRefused('That track is in the piece already.');
      draft.tracks.push({ ...track, name: freeTrackName(draft, track.name) });
      makeRoom(draft, track.clips);
    }
    for (const { track, clips: kept } of clips) draftTrack(draft, track).clips = kept;
    for (const { channel, slot } of slots)
      addEffect.apply(draft, { channel, slot, at: chainOf(draft as Piece, channel).length });
    for (const lane of lanes) putLane(draft, lane);
    draft.modulators.push(...modulators);
    draft.links.push(...links);
  },
});

/** A name that no track has yet. */
function freeTrackName({ tracks }: Pick<Piece, 'tracks'>, wanted: string): string {
  const taken = new Set(tracks.map(({ name }) => name));
  let name = wanted.slice(0, 110);
  for (let n = 2; taken.has(name); n += 1) name = `${wanted.slice(0, 110)} ${n}`;
  return name;
}
