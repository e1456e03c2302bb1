import { effectOf } from '../effects/catalogue';
import { isInBars } from '../music/noteValue';
import { beatsToSamples } from '../music/tempo';
import { syncedNote, toEngineNumber } from '../params/resolve';
import type { Param, ParamValue } from '../params/param';
import { channelOfTarget, contextOf, macrosOf, slotsIn } from '../piece/find';
import { tempoOf } from '../piece/tempoOf';
import { heardFades } from '../piece/clipEdges';
import {
  FADE_SHAPES,
  MAIN,
  type Clip,
  type Lane,
  type Link,
  type Piece,
  type Return,
  type Slot,
  type Track,
} from '../piece/piece';
import type { PlanChannel, PlanClip, PlanSlot, PrintScope } from './plan';
import { planLane, planLink } from './planTargets';

/** Edges cut by a print's range are faded over this. */
const CUT_FADE_SECONDS = 0.002;

/** The parts of a clip that a print takes. */
export function cutToScope(clip: PlanClip, { fromSample, toSample, hits }: PrintScope, sampleRate: number): PlanClip[] {
  const fade = Math.round(CUT_FADE_SECONDS * sampleRate);
  return (hits ?? [{ fromSample, toSample }]).flatMap((stretch) =>
    cutClip(clip, stretch.fromSample, stretch.toSample, fade),
  );
}

/**
 * Compiles a track; of a printed one what the print takes, before level and pan.
 * @param direct whether it goes to the main output
 */
export function planTrack(
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

/** Compiles a channel with its chain, lanes, links and sends. */
export function planChannel(
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

/** Compiles a clip; none for one that is not heard. */
export function planClip(piece: Piece, { clips }: Track, clip: Clip, scope: PrintScope | null): PlanClip[] {
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
    const note = syncedNote(slot.values[id] ?? param.initial);
    if (lane ? lane.unit !== 'beats' : note === null) return 0;
    return (param.sync === 'rate' ? -1 : 1) * (!lane && isInBars(note!) ? 2 : 1);
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
