import { current, type Draft } from 'immer';
import * as z from 'zod';
import { beatsToSamples } from '../../music/tempo';
import { clipEnd, continuation, MIN_CLIP_SECONDS, soundSeconds } from '../clipEdges';
import { defineEdit, EditRefused } from '../edit';
import { findClip } from '../find';
import { clipSchema, type Clip, type Piece, type Track } from '../piece';
import { tempoOf } from '../tempoOf';
import { carryMoves } from './carry';
import { makeRoom } from './channels';

const clipName = (piece: Piece, clip: string): string => findClip(piece, clip)?.clip.name ?? 'a clip';

function draftClip(draft: Draft<Piece>, id: string): { clip: Draft<Clip>; track: Draft<Track> } {
  const found = findClip(draft as Piece, id);
  if (!found) throw new EditRefused('That clip is no longer in the piece.');
  return found as { clip: Draft<Clip>; track: Draft<Track> };
}

/** A position in seconds, rounded to the sample on which it is played: parts cut there join to the sample. */
export const onSample = (piece: Piece, beat: number): number =>
  beatsToSamples(beat, tempoOf(piece), piece.sampleRate) / piece.sampleRate;

const held = (value: number, low: number, high: number): number => Math.max(low, Math.min(high, value));

/** Fades limited to the remaining length of the clip. */
function fitFades(clip: Draft<Clip>): void {
  clip.fadeInSeconds = Math.min(clip.fadeInSeconds, clip.lengthSeconds);
  clip.fadeOutSeconds = Math.min(clip.fadeOutSeconds, clip.lengthSeconds - clip.fadeInSeconds);
}

/** Moves one edge of a clip, up to the end of its sound; the remaining part sounds at the same time as before. */
export const trimClip = defineEdit({
  name: 'trimClip',
  args: z.strictObject({ clip: z.string(), side: z.enum(['start', 'end']), beat: z.number().min(0) }),
  label: ({ clip, side }, before) => `Trim the ${side} of ${clipName(before, clip)}`,
  apply: (draft, { clip: id, side, beat }) => {
    const { clip } = draftClip(draft, id);
    const piece = current(draft) as Piece;
    const from = onSample(piece, clip.start);
    const to = from + clip.lengthSeconds;
    const at = onSample(piece, beat);
    // Sound that is before and after what the clip has, in the order in which it is heard.
    const beyond = [
      clip.offsetSeconds,
      Math.max(0, soundSeconds(piece, clip) - clip.offsetSeconds - clip.lengthSeconds),
    ];
    const [early, late] = clip.reversed ? [beyond[1]!, beyond[0]!] : [beyond[0]!, beyond[1]!];
    const by =
      side === 'start'
        ? held(at - from, -Math.min(early, from), clip.lengthSeconds - MIN_CLIP_SECONDS)
        : held(at - to, MIN_CLIP_SECONDS - clip.lengthSeconds, late);
    clip.lengthSeconds += side === 'start' ? -by : by;
    if (side === 'start')
      clip.start = by === at - from ? beat : clipEnd(piece, { start: clip.start, lengthSeconds: by });
    if ((side === 'start') !== (clip.reversed ?? false))
      clip.offsetSeconds = Math.max(0, clip.offsetSeconds + (side === 'start' ? by : -by));
    fitFades(clip);
  },
});

/** Splits a clip into two that sound as the one did. */
export const splitClip = defineEdit({
  name: 'splitClip',
  args: z.strictObject({ clip: z.string(), beat: z.number().min(0), id: z.string().min(1).max(64) }),
  label: ({ clip }, before) => `Split ${clipName(before, clip)}`,
  apply: (draft, { clip: id, beat, id: secondId }) => {
    const { clip, track } = draftClip(draft, id);
    const piece = current(draft) as Piece;
    const first = onSample(piece, beat) - onSample(piece, clip.start);
    const rest = clip.lengthSeconds - first;
    if (first < MIN_CLIP_SECONDS || rest < MIN_CLIP_SECONDS)
      throw new EditRefused('Put the playhead inside the clip to split it there.');
    if (first < clip.fadeInSeconds || rest < clip.fadeOutSeconds)
      throw new EditRefused('A clip is split where it does not fade. Shorten the fade first.');
    if (findClip(piece, secondId)) throw new EditRefused('A clip of that id is in the piece already.');
    const whole = current(clip) as Clip;
    const [firstOffset, secondOffset] = clip.reversed
      ? [clip.offsetSeconds + rest, clip.offsetSeconds]
      : [clip.offsetSeconds, clip.offsetSeconds + first];
    Object.assign(clip, { lengthSeconds: first, offsetSeconds: firstOffset, fadeOutSeconds: 0 });
    track.clips.push({
      ...whole,
      id: secondId,
      start: beat,
      lengthSeconds: rest,
      offsetSeconds: secondOffset,
      fadeInSeconds: 0,
    });
  },
});

/** Joins two clips of which one continues the other. */
export const joinClip = defineEdit({
  name: 'joinClip',
  args: z.strictObject({ clip: z.string() }),
  label: ({ clip }, before) => `Join ${clipName(before, clip)} with the next`,
  apply: (draft, { clip: id }) => {
    const { clip, track } = draftClip(draft, id);
    const next = continuation(current(draft) as Piece, current(track).clips, current(clip) as Clip);
    if (!next)
      throw new EditRefused(
        'No clip goes on where this one ends, in the same sound. To make one of different clips, print them.',
      );
    if (clip.reversed) clip.offsetSeconds = next.offsetSeconds;
    Object.assign(clip, {
      lengthSeconds: clip.lengthSeconds + next.lengthSeconds,
      fadeOutSeconds: next.fadeOutSeconds,
      fadeOutShape: next.fadeOutShape,
    });
    if (next.fadeOutShape === undefined) delete clip.fadeOutShape;
    track.clips = track.clips.filter((other) => other.id !== next.id);
  },
});

/** Slips the sound within a clip, whose edges stay. */
export const slipClip = defineEdit({
  name: 'slipClip',
  args: z.strictObject({ clip: z.string(), offsetSeconds: z.number().min(0) }),
  label: ({ clip }, before) => `Slip ${clipName(before, clip)}`,
  apply: (draft, { clip: id, offsetSeconds }) => {
    const { clip } = draftClip(draft, id);
    clip.offsetSeconds = held(
      offsetSeconds,
      0,
      Math.max(0, soundSeconds(current(draft) as Piece, clip) - clip.lengthSeconds),
    );
  },
});

const changes = clipSchema
  .pick({
    gain: true,
    fadeInSeconds: true,
    fadeOutSeconds: true,
    fadeInShape: true,
    fadeOutShape: true,
    reversed: true,
    mute: true,
    name: true,
  })
  .partial();
const WORDS: Record<keyof z.infer<typeof changes>, string> = {
  gain: 'Level',
  fadeInSeconds: 'Fade in',
  fadeOutSeconds: 'Fade out',
  fadeInShape: 'Shape of the fade in',
  fadeOutShape: 'Shape of the fade out',
  reversed: 'Reverse',
  mute: 'Mute',
  name: 'Name',
};

export const setClip = defineEdit({
  name: 'setClip',
  args: z.strictObject({ clip: z.string(), change: changes }),
  label: ({ clip, change }, before) =>
    `${Object.keys(change)
      .map((key) => WORDS[key as keyof typeof WORDS])
      .join(', ')} of ${clipName(before, clip)}`,
  apply: (draft, { clip: id, change }) => {
    const { clip } = draftClip(draft, id);
    Object.assign(clip, change);
    if (change.fadeOutSeconds !== undefined && change.fadeInSeconds === undefined)
      clip.fadeInSeconds = Math.min(clip.fadeInSeconds, Math.max(0, clip.lengthSeconds - clip.fadeOutSeconds));
    fitFades(clip);
  },
});

/** Copies of a clip one after another, each with the moves that travel with it. */
export const repeatClip = defineEdit({
  name: 'repeatClip',
  args: z.strictObject({
    clip: z.string(),
    every: z.number().positive(),
    ids: z.array(z.string().min(1).max(60)).min(1).max(64),
  }),
  label: ({ clip, ids }, before) =>
    `Repeat ${clipName(before, clip)} ${ids.length} ${ids.length === 1 ? 'time' : 'times'}`,
  apply: (draft, { clip: id, every, ids }) => {
    const { clip, track } = draftClip(draft, id);
    const whole = current(clip) as Clip;
    ids.forEach((made, i) => {
      if (findClip(draft as Piece, made)) throw new EditRefused('A clip of that id is in the piece already.');
      const start = whole.start + every * (i + 1);
      carryMoves(draft, whole, { track: track.id, start: whole.start }, { track: track.id, start }, false, made);
      track.clips.push({ ...whole, id: made, start });
    });
    makeRoom(draft, [{ ...whole, start: whole.start + every * ids.length }]);
  },
});

/** Crossfades a clip into the next one on its track over all of their overlap. */
export const crossfadeClip = defineEdit({
  name: 'crossfadeClip',
  args: z.strictObject({ clip: z.string() }),
  label: ({ clip }, before) => `Crossfade ${clipName(before, clip)} into the next`,
  apply: (draft, { clip: id }) => {
    const { clip, track } = draftClip(draft, id);
    const piece = current(draft) as Piece;
    const next = overlapping(piece, current(track) as Track, current(clip) as Clip);
    const over = next ? track.clips.find((other) => other.id === next.id) : undefined;
    if (!over)
      throw new EditRefused('No clip of this track begins before this one ends. Move them over each other first.');
    const seconds = Math.min(over.lengthSeconds, onSample(piece, clipEnd(piece, clip)) - onSample(piece, over.start));
    Object.assign(clip, {
      fadeOutSeconds: seconds,
      fadeOutShape: 'power',
      fadeInSeconds: Math.min(clip.fadeInSeconds, clip.lengthSeconds - seconds),
    });
    Object.assign(over, {
      fadeInSeconds: seconds,
      fadeInShape: 'power',
      fadeOutSeconds: Math.min(over.fadeOutSeconds, over.lengthSeconds - seconds),
    });
  },
});

/** The first clip of a track that begins within another. */
export function overlapping(piece: Piece, track: Track, clip: Clip): Clip | undefined {
  const end = clipEnd(piece, clip);
  return track.clips
    .filter((other) => other.id !== clip.id && other.start > clip.start && other.start < end - 1e-9)
    .sort((a, b) => a.start - b.start)[0];
}
