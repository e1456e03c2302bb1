import type { Macro, Modulator } from '../automation/modulator';
import { beatsToSamples, type Tempo } from '../music/tempo';
import type { Param, ValueContext } from '../params/param';
import { heardFades } from '../piece/clipEdges';
import { channelOfTarget, contextOf, macrosOf, paramOf, slotsIn } from '../piece/find';
import {
  MAIN,
  type Clip,
  type Lane,
  type Link,
  type Piece,
  type Return,
  type Slot,
  type Target,
  type Track,
} from '../piece/piece';
import { constantTempoOf, tempoOf } from '../piece/tempoOf';
import type { PlanTarget } from './plan';
import { planTarget } from './planTargets';

/** A piece with all that concerns more than one channel worked out: what the channels of a plan are built from. */
export interface ResolvedPiece {
  /** For values: the tempo without its moves and metres. */
  readonly context: ValueContext;
  /** For positions: the tempo with its moves and metres. */
  readonly tempo: Tempo;
  /** For note values: the tempo with its metres, without its moves. */
  readonly constantTempo: Tempo;
  readonly modulators: readonly Modulator[];
  readonly tracks: readonly ResolvedTrack[];
  readonly returns: readonly ResolvedChannel[];
  readonly main: ResolvedChannel;
}

/** What every channel has: tracks, returns and the main output. */
type Channel = Pick<Return, 'id' | 'gain' | 'pan' | 'mute' | 'solo' | 'sends' | 'chain'>;

export interface ResolvedChannel extends Omit<Channel, 'chain'> {
  readonly chain: readonly ResolvedSlot[];
  /** Active lanes whose targets exist. */
  readonly lanes: readonly ResolvedLane[];
  /** Links whose targets and modulators exist. */
  readonly links: readonly ResolvedLink[];
  /** Macros of the piece, on the main output alone. */
  readonly macros: readonly Macro[];
}

export interface ResolvedTrack extends ResolvedChannel {
  readonly clips: readonly ResolvedClip[];
}

/** An effect with what is inside it. */
export interface ResolvedSlot {
  readonly slot: Slot;
  /** Id of the track on its sidechain. */
  readonly side: string | null;
  /** Units of its lanes, by parameter. */
  readonly laneUnits: ReadonlyMap<string, Lane['unit']>;
  readonly wetPath: readonly ResolvedSlot[];
  readonly strands: readonly { readonly place: number; readonly chain: readonly ResolvedSlot[] }[];
}

/** A clip whose sound exists, with its edges as they are heard. */
export interface ResolvedClip {
  readonly clip: Clip;
  readonly startSample: number;
  readonly fades: { readonly inSeconds: number; readonly outSeconds: number };
}

export interface ResolvedLane {
  readonly lane: Lane;
  readonly param: Param;
  readonly target: PlanTarget;
}

export interface ResolvedLink {
  readonly link: Link;
  /** Index among the modulators. */
  readonly modulator: number;
  readonly target: PlanTarget;
}

/** Every effect of a resolved chain, in the order in which plans count them. */
export const resolvedSlotsIn = (chain: readonly ResolvedSlot[]): ResolvedSlot[] =>
  chain.flatMap((resolved) => [
    resolved,
    ...resolvedSlotsIn(resolved.wetPath),
    ...resolved.strands.flatMap((strand) => resolvedSlotsIn(strand.chain)),
  ]);

/** The first of two passes in which a piece becomes a plan; the second is `buildChannel`. */
export function resolvePiece(piece: Piece): ResolvedPiece {
  const tempo = tempoOf(piece);
  const macros = macrosOf(piece);
  const trackIds = new Set(piece.tracks.map(({ id }) => id));
  const units = laneUnits(piece.lanes);
  const resolveChannel = ({ id, gain, pan, mute, solo, sends, chain }: Channel): ResolvedChannel => {
    const slots = slotsIn(chain);
    const planned = (target: Target): PlanTarget | null =>
      channelOfTarget(target) === id ? planTarget(target, slots, sends, macros) : null;
    return {
      id,
      gain,
      pan,
      mute,
      solo,
      sends,
      chain: chain.map((slot) => resolveSlot(slot, trackIds, units)),
      lanes: lanesOf(piece, planned),
      links: linksOf(piece, planned),
      macros: id === MAIN ? macros : [],
    };
  };
  return {
    context: contextOf(piece),
    tempo,
    constantTempo: constantTempoOf(piece),
    modulators: piece.modulators,
    tracks: piece.tracks.map((track) => ({ ...resolveChannel(track), clips: clipsOf(piece, track, tempo) })),
    returns: piece.returns.map(resolveChannel),
    main: resolveChannel({ ...piece.main, id: MAIN, pan: 0, mute: false, solo: false, sends: [] }),
  };
}

type LaneUnits = ReadonlyMap<string, ReadonlyMap<string, Lane['unit']>>;

/** Units of the active lanes of effects, by effect and parameter; of two lanes of one parameter the first counts. */
function laneUnits(lanes: readonly Lane[]): LaneUnits {
  const units = new Map<string, Map<string, Lane['unit']>>();
  for (const { on, target, unit } of lanes) {
    if (!on || target.kind !== 'effect') continue;
    const own = units.get(target.effect) ?? new Map<string, Lane['unit']>();
    if (!own.has(target.param)) own.set(target.param, unit);
    units.set(target.effect, own);
  }
  return units;
}

const NO_UNITS: ReadonlyMap<string, Lane['unit']> = new Map();

function resolveSlot(slot: Slot, trackIds: ReadonlySet<string>, units: LaneUnits): ResolvedSlot {
  const resolved = (inner: Slot): ResolvedSlot => resolveSlot(inner, trackIds, units);
  return {
    slot,
    side: slot.side !== undefined && trackIds.has(slot.side) ? slot.side : null,
    laneUnits: units.get(slot.id) ?? NO_UNITS,
    wetPath: (slot.wetPath ?? []).map(resolved),
    strands: (slot.strands ?? []).map(({ place, chain }) => ({ place, chain: chain.map(resolved) })),
  };
}

/** @param planned where a target is in the rows of the channel; null when it is not on it */
function lanesOf(piece: Piece, planned: (target: Target) => PlanTarget | null): ResolvedLane[] {
  return piece.lanes.flatMap((lane) => {
    const target = lane.on ? planned(lane.target) : null;
    const param = target && paramOf(piece, lane.target);
    return target && param ? [{ lane, param, target }] : [];
  });
}

/** @param planned as for `lanesOf` */
function linksOf(piece: Piece, planned: (target: Target) => PlanTarget | null): ResolvedLink[] {
  return piece.links.flatMap((link) => {
    const target = planned(link.target);
    if (!target || !paramOf(piece, link.target)) return [];
    const modulator = piece.modulators.findIndex(({ id }) => id === link.modulator);
    return modulator >= 0 ? [{ link, modulator, target }] : [];
  });
}

const clipsOf = (piece: Piece, { clips }: Track, tempo: Tempo): ResolvedClip[] =>
  clips.flatMap((clip) =>
    piece.sounds[clip.sound]
      ? [
          {
            clip,
            startSample: beatsToSamples(clip.start, tempo, piece.sampleRate),
            fades: heardFades(piece, clips, clip),
          },
        ]
      : [],
  );
