import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelName, findClip } from '../find';
import { clipSchema, printSchema, soundSchema, type Piece } from '../piece';
import { draftTrack } from './channels';

const clipName = (piece: Piece, clip: string): string => findClip(piece, clip)?.clip.name ?? 'clip';

export const addClip = defineEdit({
  name: 'addClip',
  args: z.strictObject({ track: z.string(), clip: clipSchema }),
  label: ({ track, clip }, before) => `Place ${clip.name} on ${channelName(before, track)}`,
  apply: (draft, { track, clip }) => {
    draftTrack(draft, track).clips.push(clip);
  },
});

export const moveClip = defineEdit({
  name: 'moveClip',
  args: z.strictObject({ clip: z.string(), start: z.number().min(0) }),
  label: ({ clip }, before) => `Move ${clipName(before, clip)}`,
  apply: (draft, { clip, start }) => {
    const found = draft.tracks.flatMap((track) => track.clips).find((candidate) => candidate.id === clip);
    if (!found) throw new EditRefused('That clip is no longer in the piece.');
    found.start = start;
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

export const addPrint = defineEdit({
  name: 'addPrint',
  args: z.strictObject({ print: printSchema, sound: soundSchema }),
  label: ({ print }) => `Print ${print.name}`,
  apply: (draft, { print, sound }) => {
    draft.prints.push(print);
    draft.sounds[print.sound] = sound;
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
