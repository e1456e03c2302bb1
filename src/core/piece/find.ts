import type { Param, ParamValue, ValueContext } from '../params/param';
import type { Macro } from '../automation/modulator';
import { namedParam } from './paramName';
import {
  channelParams,
  EFFECT_ON,
  MACRO_LEVEL,
  MAIN,
  ON_PARAM,
  SEND_LEVEL,
  TEMPO,
  type Clip,
  type StoredVariant,
  type Lane,
  type Piece,
  type Return,
  type Send,
  type SendTarget,
  type Slot,
  type Target,
  type Track,
} from './piece';

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

/** The channel on which a target is found: a macro and the tempo are the main output's. */
export const channelOfTarget = (target: Target): string =>
  target.kind === 'macro' || target.kind === 'tempo' ? MAIN : target.channel;

/** The effect that a target belongs to, or null. */
export const effectOfTarget = (target: Target): string | null => (target.kind === 'effect' ? target.effect : null);

export const findMacro = (piece: Pick<Piece, 'modulators'>, id: string): Macro | undefined =>
  macrosOf(piece).find((macro) => macro.id === id);

/** The macros of a piece, in the order in which the engine holds them. */
export const macrosOf = (piece: Pick<Piece, 'modulators'>): Macro[] =>
  piece.modulators.filter((modulator) => modulator.kind === 'macro');

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

/** An effect with all that is within it: itself, then its wet path, then its strands in order. */
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

/** Index of each effect of the piece among all, in the order in which the engine meters them. */
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

export function sameTarget(a: Target, b: Target): boolean {
  switch (a.kind) {
    case 'channel':
      return b.kind === 'channel' && a.channel === b.channel && a.param === b.param;
    case 'effect':
      return b.kind === 'effect' && a.channel === b.channel && a.effect === b.effect && a.param === b.param;
    case 'awaited':
      return b.kind === 'awaited' && a.channel === b.channel && a.effectKind === b.effectKind && a.param === b.param;
    case 'send':
      return b.kind === 'send' && a.channel === b.channel && a.to === b.to;
    case 'macro':
      return b.kind === 'macro' && a.macro === b.macro;
    case 'tempo':
      return b.kind === 'tempo';
  }
}

/** A unique key for a target. */
export function targetKey(target: Target): string {
  switch (target.kind) {
    case 'channel':
      return `channel/${target.channel}/${target.param}`;
    case 'effect':
      return `effect/${target.channel}/${target.effect}/${target.param}`;
    case 'awaited':
      return `awaited/${target.channel}/${target.effectKind}/${target.param}`;
    case 'send':
      return `send/${target.channel}/${target.to}`;
    case 'macro':
      return `macro/${target.macro}`;
    case 'tempo':
      return 'tempo';
  }
}

export const findLane = (piece: Piece, target: Target): Lane | undefined =>
  piece.lanes.find((lane) => sameTarget(lane.target, target));

const findSend = (piece: Piece, { channel, to }: SendTarget): Send | undefined =>
  findChannel(piece, channel)?.sends.find((send) => send.to === to);

/** True when a target's effect or send is not on its channel, so that its moves have no effect yet. */
export const isWaiting = (piece: Piece, target: Target): boolean =>
  target.kind === 'awaited' || (target.kind === 'send' && !findSend(piece, target));

/** The parameter a target names, or undefined when its channel, effect or parameter is not there. */
export function paramOf(piece: Piece, target: Target): Param | undefined {
  const channel = channelOfTarget(target);
  if (channel !== MAIN && !findChannel(piece, channel)) return undefined;
  switch (target.kind) {
    case 'tempo':
      return TEMPO;
    case 'macro': {
      const macro = findMacro(piece, target.macro);
      return macro && { ...MACRO_LEVEL, label: macro.name };
    }
    case 'send': {
      const name = findReturn(piece, target.to)?.name;
      return name ? { ...SEND_LEVEL, label: `Send to ${name}` } : undefined;
    }
    case 'channel':
      return Object.hasOwn(channelParams, target.param)
        ? channelParams[target.param as keyof typeof channelParams]
        : undefined;
    case 'effect':
      return effectParam(findSlot(piece, channel, target.effect), target.param);
    case 'awaited':
      return effectParam({ effect: target.effectKind }, target.param);
  }
}

const effectParam = (slot: Pick<Slot, 'effect' | 'strands'> | undefined, param: string): Param | undefined =>
  slot && (param === ON_PARAM ? EFFECT_ON : namedParam(slot, param));

/** The base value a target has without its lane. */
export function baseValue(piece: Piece, target: Target): ParamValue | undefined {
  switch (target.kind) {
    case 'tempo':
      return piece.tempo.bpm;
    case 'macro':
      return findMacro(piece, target.macro)?.level;
    case 'send':
      return findSend(piece, target)?.level ?? 0;
    case 'channel':
      return channelValue(piece, target.channel, target.param);
    case 'effect': {
      const slot = findSlot(piece, target.channel, target.effect);
      if (!slot) return paramOf(piece, target)?.initial;
      return target.param === ON_PARAM ? slot.on : (slot.values[target.param] ?? paramOf(piece, target)?.initial);
    }
    case 'awaited':
      return paramOf(piece, target)?.initial;
  }
}

function channelValue(piece: Piece, id: string, param: string): ParamValue | undefined {
  if (id === MAIN) return param === 'gain' ? piece.main.gain : undefined;
  const channel = findChannel(piece, id);
  return param === 'gain' ? channel?.gain : param === 'pan' ? channel?.pan : channel?.mute;
}

/** Every sound that the piece plays, has as a print, or uses in an effect. */
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
