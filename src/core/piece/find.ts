import { effectOf, findEffect } from '../effects/catalogue';
import type { Param, ParamValue, ValueContext } from '../params/param';
import type { Modulator } from '../automation/modulator';
import {
  channelParams,
  EFFECT_ON,
  MACRO_LEVEL,
  MAIN,
  ON_PARAM,
  SEND_LEVEL,
  TEMPO,
  TEMPO_PARAM,
  type Clip,
  type StoredVariant,
  type Lane,
  type Piece,
  type Return,
  type Slot,
  type Target,
  type Track,
} from './piece';

const SEND = 'send:';

export const contextOf = (piece: Pick<Piece, 'tempo' | 'sampleRate'>): ValueContext => ({
  tempo: piece.tempo,
  sampleRate: piece.sampleRate,
});

export const findTrack = (piece: Piece, trackId: string): Track | undefined =>
  piece.tracks.find((track) => track.id === trackId);

export const findReturn = (piece: Piece, id: string): Return | undefined =>
  piece.returns.find((candidate) => candidate.id === id);

/** A track or a return. */
export const findChannel = (piece: Piece, id: string): Track | Return | undefined =>
  findTrack(piece, id) ?? findReturn(piece, id);

/** Ids in the order in which the engine holds and meters them: tracks, returns, main. */
export const channelIds = (piece: Piece): string[] => [
  ...piece.tracks.map(({ id }) => id),
  ...piece.returns.map(({ id }) => id),
  MAIN,
];

export const chainOf = (piece: Piece, channel: string): readonly Slot[] =>
  channel === MAIN ? piece.main.chain : (findChannel(piece, channel)?.chain ?? []);

const NONE_KEPT: readonly StoredVariant[] = [];

export const keptOf = (piece: Piece, channel: string): readonly StoredVariant[] =>
  (channel === MAIN ? piece.main.kept : findChannel(piece, channel)?.kept) ?? NONE_KEPT;

export const channelName = (piece: Piece, channel: string): string =>
  channel === MAIN ? 'Main' : (findChannel(piece, channel)?.name ?? 'gone');

/** The return that a parameter such as `send:ID` goes to, or undefined when it is no send. */
export const sendOf = (param: string): string | undefined =>
  param.startsWith(SEND) ? param.slice(SEND.length) : undefined;

const MACRO = 'macro:';

/** The modulator that a parameter such as `macro:ID` of the main output stands for. */
export const macroOf = (piece: Pick<Piece, 'modulators'>, param: string): Modulator | undefined =>
  param.startsWith(MACRO)
    ? piece.modulators.find(({ id, kind }) => kind === 'macro' && id === param.slice(MACRO.length))
    : undefined;

/** The macros of a piece, in the order in which the engine holds them. */
export const macrosOf = (piece: Pick<Piece, 'modulators'>): Modulator[] =>
  piece.modulators.filter(({ kind }) => kind === 'macro');

/** True when sound sent from one return would come to another. */
export function reaches(
  piece: Pick<Piece, 'returns'>,
  from: string,
  to: string,
  seen: ReadonlySet<string> = new Set(),
): boolean {
  if (from === to) return true;
  if (seen.has(from)) return false;
  const here = piece.returns.find((candidate) => candidate.id === from);
  return here?.sends.some((send) => reaches(piece, send.to, to, new Set([...seen, from]))) ?? false;
}

/** An effect with all that lies within it: itself, then its wet path, then its strands in order. */
export const slotsWithin = (slot: Slot): Slot[] => [
  slot,
  ...slotsIn(slot.wetPath ?? []),
  ...(slot.strands ?? []).flatMap(({ chain }) => slotsIn(chain)),
];

/** Every effect of a chain at any depth, in the order in which plans count them. */
export const slotsIn = (chain: readonly Slot[]): Slot[] => chain.flatMap(slotsWithin);

/** An effect of a channel, at any depth. */
export const findSlot = (piece: Piece, channel: string, slotId: string): Slot | undefined =>
  slotsIn(chainOf(piece, channel)).find((slot) => slot.id === slotId);

/** Where each effect of the piece stands among all, in the order in which the engine meters them. */
export const slotPlaces = (piece: Piece): Map<string, number> =>
  new Map(
    channelIds(piece)
      .flatMap((id) => slotsIn(chainOf(piece, id)))
      .map((slot, index) => [slot.id, index]),
  );

/** The chain that holds an effect, at any depth: the one given, a wet path or a strand. */
export function chainHolding<T extends Slot>(chain: T[], slotId: string): Slot[] | undefined {
  if (chain.some((slot) => slot.id === slotId)) return chain;
  for (const slot of chain) {
    for (const inner of [slot.wetPath ?? [], ...(slot.strands ?? []).map((strand) => strand.chain)]) {
      const found = chainHolding(inner, slotId);
      if (found) return found;
    }
  }
  return undefined;
}

export function findClip(piece: Piece, clipId: string): { track: Track; clip: Clip } | undefined {
  for (const track of piece.tracks) {
    const clip = track.clips.find((candidate) => candidate.id === clipId);
    if (clip) return { track, clip };
  }
  return undefined;
}

export const sameTarget = (a: Target, b: Target): boolean =>
  a.channel === b.channel && a.effect === b.effect && a.param === b.param;

export const findLane = (piece: Piece, target: Target): Lane | undefined =>
  piece.lanes.find((lane) => sameTarget(lane.target, target));

const WAITS = 'waits:';

/** The effect of a target that waits for one of a kind to come to its channel. */
export const waitingFor = (kind: string): string => `${WAITS}${kind}`;

/** The kind of effect that a target waits for, or undefined when it does not wait. */
export const kindWaitedFor = ({ effect }: Pick<Target, 'effect'>): string | undefined =>
  effect?.startsWith(WAITS) ? effect.slice(WAITS.length) : undefined;

/** True when a target's effect or send is not on its channel, so that its moves act on nothing yet. */
export function isWaiting(piece: Piece, target: Target): boolean {
  const to = target.effect === null ? sendOf(target.param) : undefined;
  return (
    kindWaitedFor(target) !== undefined ||
    (to !== undefined && !findChannel(piece, target.channel)?.sends.some((send) => send.to === to))
  );
}

/** The parameter a target names, or undefined when its channel, effect or parameter is not there. */
export function paramOf(piece: Piece, target: Target): Param | undefined {
  if (target.channel !== MAIN && !findChannel(piece, target.channel)) return undefined;
  if (target.effect === null) {
    const macro = target.channel === MAIN ? macroOf(piece, target.param) : undefined;
    if (macro) return { ...MACRO_LEVEL, label: macro.name };
    if (target.channel === MAIN && target.param === TEMPO_PARAM) return TEMPO;
    const to = sendOf(target.param);
    if (to === undefined) return (channelParams as Record<string, Param>)[target.param];
    const name = findReturn(piece, to)?.name;
    return name ? { ...SEND_LEVEL, label: `Send to ${name}` } : undefined;
  }
  const kind = kindWaitedFor(target);
  if (kind !== undefined) return target.param === ON_PARAM ? EFFECT_ON : findEffect(kind)?.params[target.param];
  const slot = findSlot(piece, target.channel, target.effect);
  if (!slot) return undefined;
  return target.param === ON_PARAM ? EFFECT_ON : effectOf(slot.effect).params[target.param];
}

/** The base value a target has without its lane. */
export function baseValue(piece: Piece, target: Target): ParamValue | undefined {
  if (target.effect !== null) {
    if (kindWaitedFor(target) !== undefined) return paramOf(piece, target)?.initial;
    const slot = findSlot(piece, target.channel, target.effect);
    if (target.param === ON_PARAM) return slot?.on;
    return slot?.values[target.param] ?? (slot ? effectOf(slot.effect).params[target.param]?.initial : undefined);
  }
  if (target.channel === MAIN && target.param === TEMPO_PARAM) return piece.tempo.bpm;
  if (target.channel === MAIN) return target.param === 'gain' ? piece.main.gain : macroOf(piece, target.param)?.level;
  const channel = findChannel(piece, target.channel);
  const to = sendOf(target.param);
  if (to !== undefined) return channel?.sends.find((send) => send.to === to)?.level ?? 0;
  return target.param === 'gain' ? channel?.gain : target.param === 'pan' ? channel?.pan : channel?.mute;
}

/** Every sound that the piece plays, keeps as a print, or has an effect work with. */
export function soundsUsed(piece: Piece): Set<string> {
  const chains = channelIds(piece).flatMap((id) => [
    chainOf(piece, id),
    ...keptOf(piece, id).map(({ chain }) => chain),
  ]);
  const own = chains.flatMap((chain) => slotsIn(chain).flatMap(({ sound }) => (sound ? [sound] : [])));
  return new Set([
    ...piece.tracks.flatMap(({ clips }) => clips.map(({ sound }) => sound)),
    ...piece.prints.map(({ sound }) => sound),
    ...own,
  ]);
}
