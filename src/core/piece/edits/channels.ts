import type { Draft } from 'immer';
import * as z from 'zod';
import { formatValue } from '../../params/format';
import { defineEdit, EditRefused } from '../edit';
import { chainOf, channelIds, channelName, channelOfTarget, contextOf, slotsIn } from '../find';
import { clipEnd } from '../clipEdges';
import { metreName } from '../../music/metre';
import {
  channelParams,
  MAIN,
  metreSchema,
  trackSchema,
  type Clip,
  type Piece,
  type Return,
  type Track,
} from '../piece';
import { dropTargets } from './targets';
import { barStart, barsUpTo } from '../../music/grid';
import { tempoOf } from '../tempoOf';

export function draftTrack(draft: Draft<Piece>, id: string): Draft<Track> {
  const track = draft.tracks.find((candidate) => candidate.id === id);
  if (!track) throw new EditRefused('That track is no longer in the piece.');
  return track;
}

/** A track or a return, to be changed. */
export function draftChannel(draft: Draft<Piece>, id: string): Draft<Track> | Draft<Return> {
  const found =
    draft.tracks.find((candidate) => candidate.id === id) ?? draft.returns.find((candidate) => candidate.id === id);
  if (!found) throw new EditRefused('That channel is no longer in the piece.');
  return found;
}

export const renamePiece = defineEdit({
  name: 'renamePiece',
  args: z.strictObject({ name: z.string().trim().min(1).max(120) }),
  label: ({ name }) => `Name the piece “${name}”`,
  apply: (draft, { name }) => {
    draft.name = name;
  },
});

export const setTempo = defineEdit({
  name: 'setTempo',
  args: z.strictObject({ bpm: z.number().min(20).max(300) }),
  label: ({ bpm }) => `Tempo ${Math.round(bpm * 100) / 100} BPM`,
  apply: (draft, { bpm }) => {
    draft.tempo.bpm = bpm;
  },
});

/** The metre of the piece; sections may have others. */
export const setMetre = defineEdit({
  name: 'setMetre',
  args: metreSchema,
  label: (metre) => `Metre ${metreName(metre)}`,
  apply: (draft, { beatsPerBar, unit }) => {
    draft.tempo.beatsPerBar = beatsPerBar;
    draft.tempo.unit = unit;
  },
});

export const setLoop = defineEdit({
  name: 'setLoop',
  args: z.strictObject({ on: z.boolean(), start: z.number().min(0), end: z.number().positive() }),
  label: ({ on }) => (on ? 'Loop on' : 'Loop off'),
  apply: (draft, loop) => {
    if (loop.end - loop.start < 0.25) throw new EditRefused('A loop needs at least a quarter of a beat.');
    draft.loop = loop;
  },
});

/** Extends the piece to the end of the bar in which clips end. */
export function makeRoom(draft: Draft<Piece>, clips: readonly Clip[]): void {
  const tempo = tempoOf(draft as Piece);
  for (const clip of clips)
    draft.lengthBeats = Math.max(
      draft.lengthBeats,
      barStart(barsUpTo(clipEnd(draft as Piece, clip), tempo) + 1, tempo),
    );
}

export const addTrack = defineEdit({
  name: 'addTrack',
  args: z.strictObject({ track: trackSchema, sounds: z.record(z.string(), z.custom<Piece['sounds'][string]>()) }),
  label: ({ track }) => `Add track ${track.name}`,
  apply: (draft, { track, sounds }) => {
    if (channelIds(draft).includes(track.id)) throw new EditRefused('That track is in the piece already.');
    draft.tracks.push(track);
    Object.assign(draft.sounds, sounds);
    makeRoom(draft, track.clips);
  },
});

export const removeTrack = defineEdit({
  name: 'removeTrack',
  args: z.strictObject({ track: z.string() }),
  label: ({ track }, before) => `Remove track ${channelName(before, track)}`,
  apply: (draft, { track }) => {
    draftTrack(draft, track);
    draft.tracks = draft.tracks.filter((candidate) => candidate.id !== track);
    dropTargets(draft, (target) => channelOfTarget(target) === track);
    // Sidechains from it are removed.
    for (const id of channelIds(draft))
      for (const slot of slotsIn(chainOf(draft, id))) if (slot.side === track) delete slot.side;
  },
});

export const renameTrack = defineEdit({
  name: 'renameTrack',
  args: z.strictObject({ track: z.string(), name: z.string().trim().min(1).max(120) }),
  label: ({ track, name }, before) => `Rename ${channelName(before, track)} to ${name}`,
  apply: (draft, { track, name }) => {
    draftChannel(draft, track).name = name;
  },
});

export const setChannelParam = defineEdit({
  name: 'setChannelParam',
  args: z.strictObject({ channel: z.string(), param: z.enum(['gain', 'pan']), value: z.number() }),
  label: ({ channel, param, value }, before) =>
    `${channelName(before, channel)}: ${channelParams[param].label.toLowerCase()} ${formatValue(channelParams[param], value, contextOf(before))}`,
  apply: (draft, { channel, param, value }) => {
    const { min, max } = channelParams[param];
    const held = Math.min(max, Math.max(min, value));
    if (channel !== MAIN) draftChannel(draft, channel)[param] = held;
    else if (param === 'gain') draft.main.gain = held;
    else throw new EditRefused('The main output has no pan.');
  },
});

export const setSwitch = defineEdit({
  name: 'setSwitch',
  args: z.strictObject({ track: z.string(), which: z.enum(['mute', 'solo']), on: z.boolean() }),
  label: ({ track, which, on }, before) =>
    `${on ? (which === 'mute' ? 'Mute' : 'Solo') : which === 'mute' ? 'Unmute' : 'Unsolo'} ${channelName(before, track)}`,
  apply: (draft, { track, which, on }) => {
    draftChannel(draft, track)[which] = on;
  },
});
