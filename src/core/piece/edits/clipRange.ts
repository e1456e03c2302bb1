import { current } from 'immer';
import * as z from 'zod';
import { clipEnd, MIN_CLIP_SECONDS } from '../clipEdges';
import { defineEdit, EditRefused } from '../edit';
import { channelName, findClip } from '../find';
import { boundedList } from '../boundedList';
import { clipSchema, type Clip, type Piece, type Track } from '../piece';
import { draftTrack, makeRoom } from './channels';
import { onSample } from './clipShape';

/** A range of time, in beats. */
interface Beats {
  readonly start: number;
  readonly end: number;
}

/**
 * The part of a clip that sounds within a range; cut on the samples on which it is played. An edge of the range less
 * than a sample before the end of the clip is that end: lengths of clips are not whole samples.
 * @returns null when none of it does, or less than the minimum length of a clip
 * @throws EditRefused where the range begins or ends within a fade
 */
function partWithin(piece: Piece, clip: Clip, { start, end }: Beats): Clip | null {
  const begins = onSample(piece, clip.start);
  const ends = begins + clip.lengthSeconds;
  const from = Math.max(begins, onSample(piece, start));
  const cut = onSample(piece, end);
  const to = cut > ends - 1 / piece.sampleRate ? ends : cut;
  const [before, behind] = [from - begins, ends - to];
  if (to <= from) return null;
  if (before === 0 && behind === 0) return clip;
  if (to - from < MIN_CLIP_SECONDS) return null;
  const fades = (at: number): boolean =>
    at > 0 && at < clip.lengthSeconds && (at < clip.fadeInSeconds || clip.lengthSeconds - at < clip.fadeOutSeconds);
  if (fades(before) || fades(clip.lengthSeconds - behind))
    throw new EditRefused(`${clip.name} is cut where it does not fade. Shorten its fade, or choose another stretch.`);
  return {
    ...clip,
    start: before > 0 ? start : clip.start,
    lengthSeconds: to - from,
    offsetSeconds: clip.offsetSeconds + (clip.reversed ? behind : before),
    fadeInSeconds: before > 0 ? 0 : clip.fadeInSeconds,
    fadeOutSeconds: behind > 0 ? 0 : clip.fadeOutSeconds,
  };
}

/** The clips of a track as they sound within a range, with their own ids, from left to right. */
export const clipsWithin = (piece: Piece, track: Track, stretch: Beats): Clip[] =>
  track.clips.flatMap((clip) => partWithin(piece, clip, stretch) ?? []).sort((a, b) => a.start - b.start);

/** The parts of a track's clips outside a range; clips that reach over an edge are cut there. */
function clipsOutside(piece: Piece, track: Track, { start, end }: Beats, ids: readonly string[]): Clip[] {
  return track.clips.flatMap((clip, i) => {
    const stays = [
      partWithin(piece, clip, { start: 0, end: start }),
      partWithin(piece, clip, { start: end, end: Math.max(end, clipEnd(piece, clip)) + 1 }),
    ].flatMap((part) => part ?? []);
    if (stays.length < 2) return stays;
    const id = ids[i];
    if (id === undefined || findClip(piece, id)) throw new EditRefused('What stays behind the stretch needs a new id.');
    return [stays[0]!, { ...stays[1]!, id }];
  });
}

const stretchOfTrack = {
  track: z.string(),
  start: z.number().min(0),
  end: z.number().positive(),
  /** Ids for the parts of clips behind the range: as many as there are clips on the track. */
  ids: boundedList(z.string().min(1).max(64), 2000),
};

/** Removes what sounds on a track within a range. */
export const clearClips = defineEdit({
  name: 'clearClips',
  args: z.strictObject(stretchOfTrack),
  label: ({ track }, before) => `Clear a stretch of ${channelName(before, track)}`,
  apply: (draft, { track: id, ids, ...stretch }) => {
    const track = draftTrack(draft, id);
    const piece = current(draft) as Piece;
    const whole = current(track) as Track;
    if (clipsWithin(piece, whole, stretch).length === 0) throw new EditRefused('No clip sounds there.');
    track.clips = clipsOutside(piece, whole, stretch, ids);
  },
});

/** Replaces what sounds within a range of a track by clips. */
export const layClips = defineEdit({
  name: 'layClips',
  args: z.strictObject({
    ...stretchOfTrack,
    clips: boundedList(clipSchema, 2000, 1),
    what: z.string().min(1).max(40),
  }),
  label: ({ track, what }, before) => `${what} ${channelName(before, track)}`,
  apply: (draft, { track: id, ids, clips, what: _what, ...stretch }) => {
    const track = draftTrack(draft, id);
    const piece = current(draft) as Piece;
    for (const clip of clips) {
      if (findClip(piece, clip.id)) throw new EditRefused('A clip of that id is in the piece already.');
      if (!piece.sounds[clip.sound]) throw new EditRefused('The sound of that clip is not in this piece.');
    }
    track.clips = [...clipsOutside(piece, current(track) as Track, stretch, ids), ...clips];
    makeRoom(draft, clips);
  },
});
