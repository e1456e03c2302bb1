import { effectOf } from '../effects/catalogue';
import { isInBars } from '../music/noteValue';
import { beatsToSamples } from '../music/tempo';
import { linkTransferOf } from '../piece/links/link';
import { laneTrack } from '../piece/moves/lane';
import { FADE_SHAPES, type Target } from '../piece/piece';
import type { Param, ParamValue, ValueContext } from '../params/param';
import { syncedNote, toEngineNumber } from '../params/resolve';
import type { PlanChannel, PlanClip, PlanLane, PlanLink, PlanSlot, PrintScope } from './plan';
import type {
  ResolvedChannel,
  ResolvedClip,
  ResolvedLane,
  ResolvedLink,
  ResolvedPiece,
  ResolvedSlot,
} from './resolvePiece';

/** Edges cut by a print's range are faded over this. */
const CUT_FADE_SECONDS = 0.002;

/** The parts of a clip that a print takes. */
export function cutToScope(clip: PlanClip, { fromSample, toSample, hits }: PrintScope, sampleRate: number): PlanClip[] {
  const fade = Math.round(CUT_FADE_SECONDS * sampleRate);
  return (hits ?? [{ fromSample, toSample }]).flatMap((stretch) =>
    cutClip(clip, stretch.fromSample, stretch.toSample, fade),
  );
}

/** Builds a clip; none for one that is not heard. */
export function buildClip({ context }: ResolvedPiece, resolved: ResolvedClip, scope: PrintScope | null): PlanClip[] {
  const { clip, startSample, fades } = resolved;
  const { sampleRate } = context;
  // A muted clip that is asked for by name is printed all the same.
  if (clip.mute && scope?.clip !== clip.id) return [];
  const whole: PlanClip = {
    sound: clip.sound,
    start: startSample,
    length: Math.round(clip.lengthSeconds * sampleRate),
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

/** How a channel goes into a plan. */
export interface ChannelRole {
  /** False while others are soloed. */
  readonly audible: boolean;
  /** Whether it goes to the main output itself. */
  readonly direct: boolean;
  /** Whether moves and links of its own level, pan, mute and sends act; those of its effects always do. */
  readonly ownMoves: boolean;
}

/** Builds a channel with its chain, lanes, links and sends. */
export function buildChannel(
  piece: ResolvedPiece,
  channel: ResolvedChannel,
  clips: readonly PlanClip[],
  { audible, direct, ownMoves }: ChannelRole,
): PlanChannel {
  const { id, gain, pan, mute, sends, chain, macros } = channel;
  const acts = ({ kind }: Target): boolean => {
    if (kind === 'effect') return chain.length > 0;
    if (kind === 'send') return ownMoves && sends.length > 0;
    return ownMoves || kind === 'macro';
  };
  return {
    id,
    clips,
    values: Float64Array.of(gain, pan, mute ? 1 : 0),
    audible,
    direct,
    sends: sends.map(({ to, pre, level }) => ({ to, pre, values: Float64Array.of(level) })),
    slots: chain.map((slot) => buildSlot(slot, piece.context)),
    lanes: channel.lanes.filter(({ lane }) => acts(lane.target)).map((lane) => buildLane(lane, piece.context)),
    links: channel.links.filter(({ link }) => acts(link.target)).map((link) => buildLink(link, piece.context)),
    macros: macros.map((macro) => ({ id: macro.id, level: macro.level })),
  };
}

// Lanes and rests are counted by the unmoved tempo: the engine reads them by the beat.
const laneSamples = (beat: number, { tempo, sampleRate }: ValueContext): number =>
  beatsToSamples(beat, tempo, sampleRate);

const buildLane = ({ lane, param, target }: ResolvedLane, context: ValueContext): PlanLane => ({
  ...target,
  ...laneTrack(context, lane, param, (beat) => laneSamples(beat, context)),
});

const buildLink = ({ link, modulator, target }: ResolvedLink, context: ValueContext): PlanLink => ({
  ...target,
  modulator,
  transfer: linkTransferOf(link),
  rests: Float64Array.from(
    (link.rests ?? []).flatMap(({ start, end }) => [start, end]),
    (beat) => laneSamples(beat, context),
  ),
});

function buildSlot({ slot, side, laneUnits, wetPath, strands }: ResolvedSlot, context: ValueContext): PlanSlot {
  const { params, paramIds, impulse } = effectOf(slot.effect);
  const valueOf = (id: string): ParamValue => slot.values[id] ?? (params[id] as Param).initial;
  const follows = (id: string): number => {
    const param = params[id] as Param;
    if (param.kind !== 'number' || !param.sync) return 0;
    const unit = laneUnits.get(id);
    const note = syncedNote(valueOf(id));
    if (unit ? unit !== 'beats' : note === null) return 0;
    return (param.sync === 'rate' ? -1 : 1) * (!unit && isInBars(note!) ? 2 : 1);
  };
  return {
    id: slot.id,
    effect: slot.effect,
    on: slot.on,
    values: Float64Array.from(paramIds, (id) => toEngineNumber(params[id] as Param, valueOf(id), context)),
    follows: Int8Array.from(paramIds, follows),
    impulse: impulse?.(slot.values, context, slot.sound ?? null) ?? null,
    side,
    wetPath: wetPath.map((inner) => buildSlot(inner, context)),
    strands: strands.map(({ place, chain }) => ({ place, slots: chain.map((inner) => buildSlot(inner, context)) })),
  };
}
