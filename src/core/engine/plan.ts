import type { ImpulseNeed } from '../impulses/make';
import { effectOf } from '../effects/catalogue';
import { beatsToSamples, type TempoMap } from '../music/tempo';
import { linkTransferOf } from '../piece/links/link';
import type { LinkTransfer } from '../automation/linkTransfer';
import type { Macro, Modulator } from '../automation/modulator';
import { modulatorTrack, NO_SOURCE, type ModulatorSource, type ModulatorTrack } from '../automation/modulatorTrack';
import type { LaneTrack } from '../automation/evaluate';
import { laneTrack } from '../piece/moves/lane';
import { syncedNote, toEngineNumber } from '../params/resolve';
import type { Param, ParamValue } from '../params/param';
import { channelOfTarget, contextOf, macrosOf, paramOf, slotsIn } from '../piece/find';
import { tempoOf } from '../piece/tempoOf';
import { heardFades } from '../piece/clipEdges';
import {
  channelParams,
  FADE_SHAPES,
  MAIN,
  ON_PARAM,
  type Clip,
  type Lane,
  type Link,
  type Piece,
  type Return,
  type Send,
  type Slot,
  type Target,
  type Track,
} from '../piece/piece';

/** A piece made flat: everything in samples and engine numbers, ready to be sent to another thread and played. */
export interface Plan {
  readonly sampleRate: number;
  readonly lengthSamples: number;
  readonly loop: { readonly on: boolean; readonly start: number; readonly end: number };
  /** Tracks in order, then returns, the main output last. */
  readonly channels: readonly PlanChannel[];
  /** Indexes of tracks and returns, each before all that it sends to. */
  readonly order: readonly number[];
  readonly modulators: readonly ModulatorTrack[];
  /** Length of a bar in quarter notes. */
  readonly beatsPerBar: number;
  /** Beats a minute by which lanes and note values were counted. */
  readonly bpm: number;
  /** How the tempo moves; null where it does not. */
  readonly tempoMap: TempoMap | null;
}

export interface PlanChannel {
  readonly id: string;
  readonly clips: readonly PlanClip[];
  /** Gain, pan and mute, in the order of channelParams. */
  readonly values: Float64Array;
  /** False while others are soloed. */
  readonly audible: boolean;
  /** False while it only feeds returns, one of which is soloed. */
  readonly direct: boolean;
  readonly sends: readonly PlanSend[];
  readonly slots: readonly PlanSlot[];
  readonly lanes: readonly PlanLane[];
  readonly links: readonly PlanLink[];
  /** Where each macro of the piece stands, on the main output alone; as values they come after its own. */
  readonly macros: readonly { readonly id: string; readonly level: number }[];
}

export interface PlanSend {
  readonly to: string;
  readonly pre: boolean;
  /** One value: the level. */
  readonly values: Float64Array;
}

export interface PlanClip {
  readonly sound: string;
  readonly start: number;
  readonly length: number;
  readonly offset: number;
  readonly gain: number;
  readonly fadeIn: number;
  readonly fadeOut: number;
  /** Indexes in FADE_SHAPES. */
  readonly fadeInShape: number;
  readonly fadeOutShape: number;
  readonly reversed: boolean;
}

export interface PlanSlot {
  readonly id: string;
  readonly effect: string;
  readonly on: boolean;
  readonly values: Float64Array;
  /** Which values follow a tempo that moves: 1 for lengths, -1 for rates, 0 for none. */
  readonly follows: Int8Array;
  /** The impulse it needs, if it is one that does. */
  readonly impulse: ImpulseNeed | null;
  /** The channel that it listens to, if it listens aside. */
  readonly side: string | null;
  /** Effects on its treated sound alone. */
  readonly wetPath: readonly PlanSlot[];
  /** What lies in its strands, by place from 1. */
  readonly strands: readonly { readonly place: number; readonly slots: readonly PlanSlot[] }[];
}

/** Every effect of a chain at any depth: itself, then its wet path, then its strands. */
export const planSlotsIn = (slots: readonly PlanSlot[]): PlanSlot[] =>
  slots.flatMap((slot) => [
    slot,
    ...planSlotsIn(slot.wetPath),
    ...slot.strands.flatMap((strand) => planSlotsIn(strand.slots)),
  ]);

/** What of a channel a lane or a link acts on. */
export interface PlanTarget {
  /** Index among all effects of the channel at any depth, or -1 for the channel itself. */
  readonly slot: number;
  readonly value: number;
}

export interface PlanLane extends LaneTrack, PlanTarget {
  /** It switches something on and off. */
  readonly isSwitch: boolean;
}

export interface PlanLink extends PlanTarget {
  /** Index among the plan's modulators. */
  readonly modulator: number;
  readonly transfer: LinkTransfer;
  /** Places between which it does nothing: beginning and end of each stretch. */
  readonly rests: Float64Array;
}

/** What of a piece a print takes: one channel's clips inside a stretch, before its level and pan, through its chain. */
export interface PrintScope {
  readonly channel: string;
  readonly clip: string | null;
  readonly fromSample: number;
  readonly toSample: number;
  /** Only what lies in these stretches; all between the two ends when left out. */
  readonly hits?: readonly { readonly fromSample: number; readonly toSample: number }[] | undefined;
}

/** Edges cut by a print's range are faded over this. */
const CUT_FADE_SECONDS = 0.002;
const CHANNEL_PARAM_IDS = Object.keys(channelParams);

/**
 * Index of a target among a channel's own values: its level, pan and mute, then its sends in order, or the macros on
 * the main output; -1 for none.
 */
export function channelValueIndex(
  target: Target,
  sends: readonly Pick<Send, 'to'>[],
  macros: readonly Pick<Macro, 'id'>[],
): number {
  const beyond = (index: number): number => (index < 0 ? -1 : CHANNEL_PARAM_IDS.length + index);
  switch (target.kind) {
    case 'channel':
      return CHANNEL_PARAM_IDS.indexOf(target.param);
    case 'send':
      return beyond(sends.findIndex(({ to }) => to === target.to));
    case 'macro':
      return beyond(macros.findIndex(({ id }) => id === target.macro));
    case 'effect':
    case 'tempo':
      return -1;
  }
}

/** Index of a parameter of an effect, or of its switch, which comes after them; -1 for none. */
export function slotValueIndex(effect: string, param: string): number {
  const { paramIds } = effectOf(effect);
  return param === ON_PARAM ? paramIds.length : paramIds.indexOf(param);
}

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
      modulatorTrack(modulator, contextOf(piece), sourceOf(modulator, all)),
    ),
    beatsPerBar: piece.tempo.beatsPerBar,
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

function cutToScope(clip: PlanClip, { fromSample, toSample, hits }: PrintScope, sampleRate: number): PlanClip[] {
  const fade = Math.round(CUT_FADE_SECONDS * sampleRate);
  return (hits ?? [{ fromSample, toSample }]).flatMap((stretch) =>
    cutClip(clip, stretch.fromSample, stretch.toSample, fade),
  );
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

function planTrack(
  piece: Piece,
  track: Track,
  audible: boolean,
  direct: boolean,
  scope: PrintScope | null,
): PlanChannel {
  const chosen = scope?.clip ? track.clips.filter((clip) => clip.id === scope.clip) : track.clips;
  const clips = chosen.flatMap((clip) => planClip(piece, track, clip, scope));
  return scope
    ? planChannel(piece, { ...track, gain: 1, pan: 0, mute: false, sends: [] }, clips, audible, direct, false)
    : planChannel(piece, track, clips, audible, direct, true);
}

type Mixed = Pick<Return, 'id' | 'chain' | 'gain' | 'pan' | 'mute' | 'sends'>;

function planChannel(
  piece: Piece,
  { id, chain, gain, pan, mute, sends }: Mixed,
  clips: readonly PlanClip[],
  audible: boolean,
  direct: boolean,
  ownLanes: boolean,
): PlanChannel {
  const every = slotsIn(chain);
  const macros = id === MAIN ? macrosOf(piece) : [];
  const acts = ({ target }: Lane | Link): boolean =>
    channelOfTarget(target) === id && (ownLanes || target.kind === 'effect' || target.kind === 'macro');
  const lanes = piece.lanes
    .filter((lane) => lane.on && acts(lane))
    .flatMap((lane) => planLane(piece, lane, every, sends));
  const links = piece.links.filter(acts).flatMap((link) => planLink(piece, link, every, sends));
  return {
    id,
    clips,
    values: Float64Array.of(gain, pan, mute ? 1 : 0),
    audible,
    direct,
    sends: sends.map(({ to, pre, level }) => ({ to, pre, values: Float64Array.of(level) })),
    slots: chain.map((slot) => planSlot(piece, slot)),
    lanes,
    links,
    macros: macros.map(({ id: macro, level }) => ({ id: macro, level })),
  };
}

function planClip(piece: Piece, { clips }: Track, clip: Clip, scope: PrintScope | null): PlanClip[] {
  const { sampleRate } = piece;
  // A muted clip that is asked for by name is printed all the same.
  if (!piece.sounds[clip.sound] || (clip.mute && scope?.clip !== clip.id)) return [];
  const fades = heardFades(piece, clips, clip);
  const start = beatsToSamples(clip.start, tempoOf(piece), sampleRate);
  const length = Math.round(clip.lengthSeconds * sampleRate);
  const whole: PlanClip = {
    sound: clip.sound,
    start,
    length,
    offset: Math.round(clip.offsetSeconds * sampleRate),
    gain: clip.gain,
    fadeIn: Math.round(fades.inSeconds * sampleRate),
    fadeOut: Math.round(fades.outSeconds * sampleRate),
    fadeInShape: FADE_SHAPES.indexOf(clip.fadeInShape ?? 'line'),
    fadeOutShape: FADE_SHAPES.indexOf(clip.fadeOutShape ?? 'line'),
    reversed: clip.reversed ?? false,
  };
  return scope ? cutToScope(whole, scope, sampleRate) : [whole];
}

function cutClip(clip: PlanClip, from: number, to: number, fade: number): PlanClip[] {
  const start = Math.max(clip.start, from);
  const end = Math.min(clip.start + clip.length, to);
  if (end <= start) return [];
  return [
    {
      ...clip,
      start,
      length: end - start,
      offset: clip.offset + (clip.reversed ? clip.start + clip.length - end : start - clip.start),
      fadeIn: start > clip.start ? Math.max(fade, clip.fadeIn - (start - clip.start)) : clip.fadeIn,
      fadeOut: end < clip.start + clip.length ? fade : clip.fadeOut,
    },
  ];
}

function planSlot(piece: Piece, slot: Slot): PlanSlot {
  const { params, paramIds, impulse } = effectOf(slot.effect);
  const context = contextOf(piece);
  const number = (id: string): number => {
    const param = params[id] as Param;
    const value: ParamValue = slot.values[id] ?? param.initial;
    return toEngineNumber(param, value, context);
  };
  const follows = (id: string): number => {
    const param = params[id] as Param;
    if (param.kind !== 'number' || !param.sync) return 0;
    const lane = piece.lanes.find(
      ({ on, target }) => on && target.kind === 'effect' && target.effect === slot.id && target.param === id,
    );
    if (lane ? lane.unit !== 'beats' : syncedNote(slot.values[id] ?? param.initial) === null) return 0;
    return param.sync === 'rate' ? -1 : 1;
  };
  return {
    id: slot.id,
    effect: slot.effect,
    on: slot.on,
    values: Float64Array.from(paramIds, number),
    follows: Int8Array.from(paramIds, follows),
    impulse: impulse?.(slot.values, context, slot.sound ?? null) ?? null,
    side: piece.tracks.some(({ id }) => id === slot.side) ? slot.side! : null,
    wetPath: (slot.wetPath ?? []).map((inner) => planSlot(piece, inner)),
    strands: (slot.strands ?? []).map(({ place, chain }) => ({
      place,
      slots: chain.map((inner) => planSlot(piece, inner)),
    })),
  };
}

/** Where a target is in the rows of a channel; null when it is not there. */
function planTarget(piece: Piece, target: Target, chain: readonly Slot[], sends: readonly Send[]): PlanTarget | null {
  if (!paramOf(piece, target)) return null;
  if (target.kind !== 'effect') {
    const value = channelValueIndex(target, sends, macrosOf(piece));
    return value < 0 ? null : { slot: -1, value };
  }
  const slot = chain.findIndex(({ id }) => id === target.effect);
  const value = slot < 0 ? -1 : slotValueIndex(chain[slot]!.effect, target.param);
  return value < 0 ? null : { slot, value };
}

function planLane(piece: Piece, lane: Lane, chain: readonly Slot[], sends: readonly Send[]): PlanLane[] {
  const param = paramOf(piece, lane.target);
  const target = planTarget(piece, lane.target, chain, sends);
  if (!param || !target) return [];
  // Counted by the unmoved tempo: the engine reads lanes by the beat.
  const at = (beat: number): number => beatsToSamples(beat, piece.tempo, piece.sampleRate);
  return [{ ...target, ...laneTrack(piece, lane, param, at), isSwitch: param.kind === 'toggle' }];
}

function planLink(piece: Piece, link: Link, chain: readonly Slot[], sends: readonly Send[]): PlanLink[] {
  const found = planTarget(piece, link.target, chain, sends);
  const index = piece.modulators.findIndex(({ id }) => id === link.modulator);
  return found && index >= 0
    ? [
        {
          ...found,
          modulator: index,
          transfer: linkTransferOf(link),
          rests: Float64Array.from(
            (link.rests ?? []).flatMap(({ start, end }) => [start, end]),
            (beat) => beatsToSamples(beat, piece.tempo, piece.sampleRate),
          ),
        },
      ]
    : [];
}
