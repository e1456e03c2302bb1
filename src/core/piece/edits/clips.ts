import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelName, findClip } from '../find';
import { clipSchema, type Piece } from '../piece';
import { carryMoves } from './carry';
import { draftTrack, makeRoom } from './channels';

const clipName = (piece: Piece, clip: string): string => findClip(piece, clip)?.clip.name ?? 'clip';

export const addClip = defineEdit({
  name: 'addClip',
  args: z.strictObject({
    track: z.string(),
    clip: clipSchema,
    /** Its sound, if it is new to the piece. */
    sounds: z.record(z.string(), z.custom<Piece['sounds'][string]>()).optional(),
  }),
  label: ({ track, clip }, before) => `Place ${clip.name} on ${channelName(before, track)}`,
  apply: (draft, { track, clip, sounds }) => {
    draftTrack(draft, track).clips.push(clip);
    if (!sounds) return;
    Object.assign(draft.sounds, sounds);
    makeRoom(draft, [clip]);
  },
});

export const moveClip = defineEdit({
  name: 'moveClip',
  args: z.strictObject({ clip: z.string(), start: z.number().min(0), track: z.string().optional() }),
  label: ({ clip, track }, before) =>
    `Move ${clipName(before, clip)}${track === undefined ? '' : ` to ${channelName(before, track)}`}`,
  apply: (draft, { clip, start, track }) => {
    const from = draft.tracks.find(({ clips }) => clips.some(({ id }) => id === clip));
    const found = from?.clips.find(({ id }) => id === clip);
    if (!from || !found) throw new EditRefused('That clip is no longer in the piece.');
    const to = track === undefined ? from : draftTrack(draft, track);
    carryMoves(draft, found, { track: from.id, start: found.start }, { track: to.id, start }, true, clip);
    found.start = start;
    if (to === from) return;
    from.clips = from.clips.filter(({ id }) => id !== clip);
    to.clips.push({ ...found });
  },
});

export const copyClip = defineEdit({
  name: 'copyClip',
  args: z.strictObject({
    clip: z.string(),
    start: z.number().min(0),
    track: z.string(),
    id: z.string().min(1).max(64),
  }),
  label: ({ clip, track }, before) => `Copy ${clipName(before, clip)} on ${channelName(before, track)}`,
  apply: (draft, { clip, start, track, id }) => {
    const found = findClip(draft, clip);
    if (!found) throw new EditRefused('That clip is no longer in the piece.');
    if (findClip(draft, id)) throw new EditRefused('A clip of that id is in the piece already.');
    const to = draftTrack(draft, track);
    carryMoves(draft, found.clip, { track: found.track.id, start: found.clip.start }, { track, start }, false, id);
    to.clips.push({ ...found.clip, id, start });
    makeRoom(draft, [{ ...found.clip, start }]);
  },
});

export const removeClip = defineEdit({
  name: 'removeClip',
  args: z.strictObject({ clip: z.string() }),
  label: ({ clip }, before) => `Remove ${clipName(before, clip)}`,
  apply: (draft, { clip }) => {
    for (const track of draft.tracks) {
      const at = track.clips.findIndex((candidate) => candidate.id === clip);
      if (at >= 0) track.clips.splice(at, 1);
    }
  },
});
