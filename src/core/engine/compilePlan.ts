import { metreSpans } from '../music/metre';
import { beatsToSamples } from '../music/tempo';
import type { Modulator } from '../automation/modulator';
import { modulatorTrack, NO_SOURCE, type ModulatorSource } from '../automation/modulatorTrack';
import { contextOf, slotsIn } from '../piece/find';
import { constantTempoOf, tempoOf } from '../piece/tempoOf';
import { MAIN, type Piece, type Track } from '../piece/piece';
import { planSlotsIn, type Plan, type PlanChannel, type PrintScope } from './plan';
import { cutToScope, planChannel, planClip, planTrack } from './planChannels';

/** Compiles a piece for playing and rendering. */
export function compilePlan(piece: Piece, scope: PrintScope | null = null): Plan {
  const { sampleRate } = piece;
  const tempo = tempoOf(piece);
  const at = (beats: number): number => beatsToSamples(beats, tempo, sampleRate);
  const whole = scope !== null && !piece.tracks.some(({ id }) => id === scope.channel);
  const channels = !scope ? playedChannels(piece) : whole ? mixedChannels(piece, scope) : printedChannels(piece, scope);
  const main =
    scope && scope.channel !== MAIN
      ? planChannel(piece, { id: MAIN, chain: [], gain: 1, pan: 0, mute: false, sends: [] }, [], true, true, false)
      : planChannel(piece, { id: MAIN, ...piece.main, pan: 0, mute: false, sends: [] }, [], true, true, true);
  const all = [...channels, main];
  return {
    sampleRate,
    lengthSamples: at(piece.lengthBeats),
    loop: { on: scope ? false : piece.loop.on, start: at(piece.loop.start), end: at(piece.loop.end) },
    channels: all,
    order: sendOrder(channels),
    modulators: piece.modulators.map((modulator) =>
      modulatorTrack(modulator, { ...contextOf(piece), tempo: constantTempoOf(piece) }, sourceOf(modulator, all)),
    ),
    beatsPerBar: piece.tempo.beatsPerBar,
    metres: metreSpans(tempo),
    bpm: tempo.bpm,
    tempoMap: tempo.map ?? null,
  };
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
function mixedChannels(piece: Piece, scope: PrintScope): PlanChannel[] {
  const everything = scope.channel === MAIN;
  const tracks = playedChannels(piece).slice(0, piece.tracks.length);
  const cut = tracks.map((channel) => ({
    ...channel,
    direct: everything && channel.direct,
    clips: channel.clips.flatMap((clip) => cutToScope(clip, scope, piece.sampleRate)),
  }));
  const returns = piece.returns.map((made) => {
    const printed = made.id === scope.channel;
    return planChannel(
      piece,
      printed ? { ...made, gain: 1, pan: 0, mute: false, sends: [] } : made,
      [],
      true,
      everything || printed,
      !printed,
    );
  });
  return [...cut, ...returns];
}

function printedChannels(piece: Piece, scope: PrintScope): PlanChannel[] {
  const track = piece.tracks.find((candidate) => candidate.id === scope.channel);
  if (!track) return [];
  // What its moves follow by ear, and what its effects listen to, has to be there, unheard.
  const listenedTo = sidesOf(piece, track, new Set([track.id]));
  const aside = piece.tracks
    .filter(({ id }) => listenedTo.has(id) && id !== track.id)
    .map((other) =>
      planChannel(
        piece,
        { ...other, sends: [], mute: false },
        other.clips.flatMap((clip) => planClip(piece, other, clip, null)),
        true,
        false,
        true,
      ),
    );
  const followed = piece.tracks.filter(
    ({ id }) =>
      !listenedTo.has(id) &&
      piece.modulators.some((modulator) => modulator.kind === 'follower' && modulator.follows === id),
  );
  const unheard = followed.map((other) =>
    planChannel(
      piece,
      { ...other, chain: [], sends: [], mute: false },
      other.clips.flatMap((clip) => planClip(piece, other, clip, null)),
      true,
      false,
      false,
    ),
  );
  return [planTrack(piece, track, true, true, scope), ...aside, ...unheard];
}

/** Tracks that the effects of a track listen to, and those that theirs listen to in turn. */
function sidesOf(piece: Piece, track: Track, found: Set<string>): Set<string> {
  for (const { side } of slotsIn(track.chain)) {
    const other = piece.tracks.find(({ id }) => id === side);
    if (!other || found.has(other.id)) continue;
    found.add(other.id);
    sidesOf(piece, other, found);
  }
  return found;
}

/** A soloed track is heard with what it sends; a soloed return is heard alone, fed as before. */
function playedChannels(piece: Piece): PlanChannel[] {
  const trackSolo = piece.tracks.some((track) => track.solo);
  const returnSolo = piece.returns.some((candidate) => candidate.solo);
  const tracks = piece.tracks.map((track) =>
    planTrack(
      piece,
      trackSolo ? { ...track, mute: false } : track,
      !trackSolo || track.solo,
      !returnSolo || track.solo,
      null,
    ),
  );
  const returns = piece.returns.map((made) => planChannel(piece, made, [], true, !returnSolo || made.solo, true));
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
