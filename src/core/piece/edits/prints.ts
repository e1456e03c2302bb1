import { current, type Draft } from 'immer';
import * as z from 'zod';
import { samplesToBeats } from '../../music/tempo';
import { defineEdit, EditRefused } from '../edit';
import { findClip, findTrack } from '../find';
import { printSchema, type Clip, type Piece, type Print, type Send, type Lane } from '../piece';
import { soundSchema } from '../soundInfo';
import { tempoOf } from '../tempoOf';

/** Ids of the placed clip and track, and whether the source clip is muted. */
const placeSchema = z.strictObject({
  clip: z.string().min(1).max(64),
  track: z.string().min(1).max(64),
  instead: z.boolean(),
});
type Place = z.infer<typeof placeSchema>;

/** The track on which prints of a channel are placed. */
export const printsTrackName = (piece: Piece, { from }: Print): string =>
  `Prints of ${findTrack(piece, from.channel)?.name ?? from.channelName}`.slice(0, 120);

const sameSends = (some: readonly Send[], others: readonly Send[]): boolean =>
  some.length === others.length &&
  some.every((send, i) => send.to === others[i]!.to && send.level === others[i]!.level && send.pre === others[i]!.pre);

/** Copies the moves of a track's level, pan and sends to another; those of its effects are in the print. */
function carryLevels(draft: Draft<Piece>, from: string, to: string): void {
  const moved = (current(draft.lanes) as Lane[]).flatMap(({ target, ...lane }) =>
    (target.kind === 'channel' || target.kind === 'send') && target.channel === from
      ? [{ ...lane, target: { ...target, channel: to } }]
      : [],
  );
  draft.lanes.push(...moved.map((lane, i) => ({ ...lane, id: `${to}-${i + 1}` })));
}

/**
 * Places a print at the sample it came from, on a track for prints with the level and pan of the track it was made
 * from; when it replaces its clip it also gets its sends.
 */
function layPrint(draft: Draft<Piece>, print: Print, { clip: id, track, instead }: Place): void {
  const piece = draft as Piece;
  if (findClip(piece, id)) throw new EditRefused('A clip of that id is in the piece already.');
  const from = findTrack(piece, print.from.channel);
  const name = printsTrackName(piece, print);
  const clip: Clip = {
    id,
    name: print.name,
    sound: print.sound,
    start: samplesToBeats(print.startSample, tempoOf(piece), print.sampleRate),
    offsetSeconds: 0,
    lengthSeconds: (piece.sounds[print.sound]?.frames ?? 1) / print.sampleRate,
    gain: 1,
    fadeInSeconds: 0,
    fadeOutSeconds: 0,
    print: print.id,
  };
  const sends = (instead ? from?.sends : undefined) ?? [];
  const there = draft.tracks.find((one) => one.name === name && one.chain.length === 0 && sameSends(one.sends, sends));
  if (there) there.clips.push(clip);
  else {
    draft.tracks.push({
      id: track,
      name,
      gain: from?.gain ?? 1,
      pan: from?.pan ?? 0,
      mute: false,
      solo: false,
      clips: [clip],
      chain: [],
      sends: sends.map((send) => ({ ...send })),
    });
    if (instead) carryLevels(draft, print.from.channel, track);
  }
  const source =
    instead && print.from.clip
      ? draft.tracks.flatMap(({ clips }) => clips).find((one) => one.id === print.from.clip)
      : undefined;
  if (source) source.mute = true;
}

export const addPrint = defineEdit({
  name: 'addPrint',
  args: z.strictObject({ print: printSchema, sound: soundSchema, place: placeSchema.optional() }),
  label: ({ print, place }) =>
    `Print ${print.name}${place ? (place.instead ? ' in the place of its clip' : ' where it came from') : ''}`,
  apply: (draft, { print, sound, place }) => {
    draft.prints.push(print);
    draft.sounds[print.sound] = sound;
    if (place) layPrint(draft, print, place);
  },
});

export const placePrint = defineEdit({
  name: 'placePrint',
  args: z.strictObject({ print: z.string(), place: placeSchema }),
  label: ({ print }, before) =>
    `Place ${before.prints.find(({ id }) => id === print)?.name ?? 'a print'} where it came from`,
  apply: (draft, { print, place }) => {
    const found = draft.prints.find(({ id }) => id === print);
    if (!found) throw new EditRefused('That print is no longer on the Shelf.');
    layPrint(draft, found as Print, place);
  },
});

/** A print rendered again: the clips placed from it are updated. */
export const renewPrint = defineEdit({
  name: 'renewPrint',
  args: z.strictObject({ print: printSchema, sound: soundSchema }),
  label: ({ print }) => `Print ${print.name} again`,
  apply: (draft, { print, sound }) => {
    const at = draft.prints.findIndex(({ id }) => id === print.id);
    const before = draft.prints[at];
    if (!before) throw new EditRefused('That print is no longer on the Shelf.');
    const secondsBefore = (draft.sounds[before.sound]?.frames ?? 0) / before.sampleRate;
    const seconds = sound.frames / sound.sampleRate;
    draft.prints[at] = print;
    draft.sounds[print.sound] = sound;
    for (const clip of draft.tracks.flatMap(({ clips }) => clips)) {
      if (clip.print !== print.id || clip.sound !== before.sound) continue;
      const toEnd = clip.offsetSeconds + clip.lengthSeconds >= secondsBefore - 0.001;
      clip.sound = print.sound;
      clip.offsetSeconds = Math.min(clip.offsetSeconds, Math.max(0, seconds - 0.001));
      clip.lengthSeconds = toEnd
        ? seconds - clip.offsetSeconds
        : Math.min(clip.lengthSeconds, seconds - clip.offsetSeconds);
      clip.fadeInSeconds = Math.min(clip.fadeInSeconds, clip.lengthSeconds);
      clip.fadeOutSeconds = Math.min(clip.fadeOutSeconds, clip.lengthSeconds - clip.fadeInSeconds);
    }
  },
});

export const removePrint = defineEdit({
  name: 'removePrint',
  args: z.strictObject({ print: z.string() }),
  label: ({ print }, before) => `Remove print ${before.prints.find((candidate) => candidate.id === print)?.name ?? ''}`,
  apply: (draft, { print }) => {
    draft.prints = draft.prints.filter((candidate) => candidate.id !== print);
  },
});
