import type { Modulator } from '../automation/modulator';
import { modulatorTrack, NO_SOURCE, type ModulatorSource } from '../automation/modulatorTrack';
import { metreSpans } from '../music/metre';
import { beatsToSamples } from '../music/tempo';
import { MAIN, type Piece } from '../piece/piece';
import { buildChannel, buildClip, cutToScope, type ChannelRole } from './buildChannel';
import { planSlotsIn, type Plan, type PlanChannel, type PrintScope } from './plan';
import {
  resolvedSlotsIn,
  resolvePiece,
  type ResolvedChannel,
  type ResolvedPiece,
  type ResolvedTrack,
} from './resolvePiece';

/**
 * Compiles a piece for playing and rendering, in two passes: what concerns several channels is resolved once, then the
 * channels are built from that alone.
 */
export function compilePlan(piece: Piece, scope: PrintScope | null = null): Plan {
  const { sampleRate } = piece;
  const resolved = resolvePiece(piece);
  const { tempo, constantTempo, main } = resolved;
  const at = (beats: number): number => beatsToSamples(beats, tempo, sampleRate);
  const channels = channelsOf(resolved, scope);
  const bypassed = scope !== null && scope.channel !== MAIN;
  const all = [
    ...channels,
    bypassed
      ? buildChannel(resolved, { ...main, gain: 1, chain: [] }, [], { ...PLAYED, ownMoves: false })
      : buildChannel(resolved, main, [], PLAYED),
  ];
  return {
    sampleRate,
    lengthSamples: at(piece.lengthBeats),
    loop: { on: scope ? false : piece.loop.on, start: at(piece.loop.start), end: at(piece.loop.end) },
    channels: all,
    order: sendOrder(channels),
    modulators: resolved.modulators.map((modulator) =>
      modulatorTrack(modulator, { ...resolved.context, tempo: constantTempo }, sourceOf(modulator, all)),
    ),
    beatsPerBar: piece.tempo.beatsPerBar,
    metres: metreSpans(tempo),
    bpm: tempo.bpm,
    tempoMap: tempo.map ?? null,
  };
}

const PLAYED: ChannelRole = { audible: true, direct: true, ownMoves: true };
/** Played for those that listen to it, itself unheard. */
const UNHEARD: ChannelRole = { audible: true, direct: false, ownMoves: true };

/** A channel without its own level, pan, mute and sends. */
const atUnity = <T extends ResolvedChannel>(channel: T): T => ({ ...channel, gain: 1, pan: 0, mute: false, sends: [] });

function channelsOf(piece: ResolvedPiece, scope: PrintScope | null): PlanChannel[] {
  if (!scope) return playedChannels(piece);
  const track = piece.tracks.find(({ id }) => id === scope.channel);
  return track ? printedChannels(piece, track, scope) : mixedChannels(piece, scope);
}

/** What a follower hears, or the hold with which a run begins. */
function sourceOf(modulator: Modulator, channels: readonly PlanChannel[]): ModulatorSource {
  if (modulator.kind === 'follower')
    return { channel: channels.findIndex(({ id }) => id === modulator.follows), slot: -1 };
  if (modulator.kind !== 'run') return NO_SOURCE;
  const slots = channels.map((channel) => planSlotsIn(channel.slots).findIndex(({ id }) => id === modulator.hold));
  const channel = slots.findIndex((slot) => slot >= 0);
  return channel < 0 ? NO_SOURCE : { channel, slot: slots[channel]! };
}

/**
 * All that sounds in a stretch, mixed as it is; of it, only what the return gives when it is one that is printed,
 * before its own level and pan.
 */
function mixedChannels(piece: ResolvedPiece, scope: PrintScope): PlanChannel[] {
  const everything = scope.channel === MAIN;
  const tracks = playedChannels(piece).slice(0, piece.tracks.length);
  const cut = tracks.map((channel) => ({
    ...channel,
    direct: everything && channel.direct,
    clips: channel.clips.flatMap((clip) => cutToScope(clip, scope, piece.context.sampleRate)),
  }));
  const returns = piece.returns.map((made) =>
    made.id === scope.channel
      ? buildChannel(piece, atUnity(made), [], { ...PLAYED, ownMoves: false })
      : buildChannel(piece, made, [], { ...PLAYED, direct: everything }),
  );
  return [...cut, ...returns];
}

/** What a print takes of a track, before its level and pan, and all that this listens to. */
function printedChannels(piece: ResolvedPiece, track: ResolvedTrack, scope: PrintScope): PlanChannel[] {
  const clips = track.clips
    .filter(({ clip }) => !scope.clip || clip.id === scope.clip)
    .flatMap((clip) => buildClip(piece, clip, scope));
  const printed = buildChannel(piece, atUnity(track), clips, { ...PLAYED, ownMoves: false });
  // What its moves follow by ear, and what its effects listen to, has to be there, unheard.
  const listenedTo = sidesOf(piece, track, new Set([track.id]));
  const followed = new Set(
    piece.modulators.flatMap((modulator) => (modulator.kind === 'follower' ? [modulator.follows] : [])),
  );
  const unheard = (other: ResolvedTrack, ownMoves: boolean): PlanChannel =>
    buildChannel(piece, { ...other, sends: [], mute: false }, clipsOf(piece, other), { ...UNHEARD, ownMoves });
  const sidechains = piece.tracks
    .filter(({ id }) => listenedTo.has(id) && id !== track.id)
    .map((other) => unheard(other, true));
  const followedOnly = piece.tracks
    .filter(({ id }) => !listenedTo.has(id) && followed.has(id))
    .map((other) => unheard({ ...other, chain: [] }, false));
  return [printed, ...sidechains, ...followedOnly];
}

/** Tracks that the effects of a track listen to, and those that theirs listen to in turn. */
function sidesOf(piece: ResolvedPiece, track: ResolvedTrack, found: Set<string>): Set<string> {
  for (const { side } of resolvedSlotsIn(track.chain)) {
    const other = piece.tracks.find(({ id }) => id === side);
    if (!other || found.has(other.id)) continue;
    found.add(other.id);
    sidesOf(piece, other, found);
  }
  return found;
}

const clipsOf = (piece: ResolvedPiece, { clips }: ResolvedTrack): PlanChannel['clips'] =>
  clips.flatMap((clip) => buildClip(piece, clip, null));

/** A soloed track is heard with what it sends; a soloed return is heard alone, fed as before. */
function playedChannels(piece: ResolvedPiece): PlanChannel[] {
  const trackSolo = piece.tracks.some(({ solo }) => solo);
  const returnSolo = piece.returns.some(({ solo }) => solo);
  const tracks = piece.tracks.map((track) =>
    buildChannel(piece, trackSolo ? { ...track, mute: false } : track, clipsOf(piece, track), {
      audible: !trackSolo || track.solo,
      direct: !returnSolo || track.solo,
      ownMoves: true,
    }),
  );
  const returns = piece.returns.map((made) =>
    buildChannel(piece, made, [], { ...PLAYED, direct: !returnSolo || made.solo }),
  );
  return [...tracks, ...returns];
}

/**
 * Every channel before those it sends to and those that listen to it. Sends never make a loop; where listening does,
 * one of them hears the step before.
 */
function sendOrder(channels: readonly PlanChannel[]): number[] {
  const order: number[] = [];
  const seen = new Set<number>();
  const visit = (index: number): void => {
    if (seen.has(index)) return;
    seen.add(index);
    for (const send of channels[index]!.sends) {
      const to = channels.findIndex((channel) => channel.id === send.to);
      if (to >= 0) visit(to);
    }
    channels.forEach(({ slots }, listener) => {
      if (planSlotsIn(slots).some(({ side }) => side === channels[index]!.id)) visit(listener);
    });
    order.unshift(index);
  };
  for (let i = channels.length - 1; i >= 0; i -= 1) visit(i);
  return order;
}
