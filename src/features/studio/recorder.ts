import { effectOf } from '../../core/effects/catalogue';
import { samplesToBeats, secondsPerBeat } from '../../core/music/tempo';
import { lanePosition } from '../../core/engine/plan';
import { positionAt, segmentAt, type LaneTrack } from '../../core/moves/evaluate';
import { shapeIndex, type Point } from '../../core/moves/point';
import { punch } from '../../core/moves/punch';
import { inOrder, thin, type Reading } from '../../core/moves/thin';
import type { Param } from '../../core/params/param';
import { syncedNote, paramAtPosition } from '../../core/params/resolve';
import { baseValue, contextOf, findLane, findSlot, paramOf } from '../../core/piece/find';
import { channelParams, type Lane, type Piece, type Target } from '../../core/piece/piece';

/** Readings may be missed by this share of the rail when they are thinned: less than a hand can hold still. */
export const TOLERANCE = 0.006;

/** Index of a target's parameter in the row of values that travels to the engine. */
export function valueIndex(piece: Piece, target: Target): number {
  if (target.effect === null) return Object.keys(channelParams).indexOf(target.param);
  const slot = findSlot(piece, target.channel, target.effect);
  return slot ? effectOf(slot.effect).paramIds.indexOf(target.param) : -1;
}

/** A lane as places in beats and positions on the rail, to be read on the page. */
export function laneTrack(piece: Pick<Piece, 'tempo' | 'sampleRate'>, lane: Lane, param: Param): LaneTrack {
  return {
    places: Float64Array.from(lane.points, (point) => point.beat),
    positions: Float64Array.from(lane.points, (point) => lanePosition(piece, lane, param, point.value)),
    shapes: Uint8Array.from(lane.points, (point) => (param.kind === 'number' ? shapeIndex(point.shape) : shapeIndex('hold'))),
    bends: Float64Array.from(lane.points, (point) => point.bend),
  };
}

export const trackAt = (track: LaneTrack, beat: number): number => positionAt(track, beat, segmentAt(track, beat, -1));

/** Beats at which something was heard that the engine computed at `sample`. */
export const heardBeat = (piece: Piece, sample: number, latencySeconds: number): number =>
  Math.max(0, samplesToBeats(sample - latencySeconds * piece.sampleRate, piece.tempo, piece.sampleRate));

/** What a lane's points are counted in: a time set as a note value keeps following the tempo. */
export function laneUnit(piece: Piece, target: Target): Lane['unit'] {
  const param = paramOf(piece, target);
  const base = baseValue(piece, target);
  return param?.kind === 'number' && param.sync === 'time' && base !== undefined && syncedNote(base) ? 'beats' : 'own';
}

/** A place on the rail as a value in the lane's unit. */
export function valueInUnit(piece: Piece, param: Param, position: number, unit: Lane['unit']): number {
  const number = paramAtPosition(param, position);
  return unit === 'beats' ? number / 1000 / secondsPerBeat(contextOf(piece).tempo) : number;
}

/** The lane that a pass of readings leaves behind: thinned, laid over what was there. */
export function laneFromPass(piece: Piece, target: Target, readings: readonly Reading[], newId: string): Lane | null {
  const param = paramOf(piece, target);
  const ordered = inOrder(readings);
  if (!param || ordered.length === 0) return null;
  const existing = findLane(piece, target);
  const unit = existing?.unit ?? laneUnit(piece, target);
  const held = param.kind !== 'number';
  const kept = held ? ordered.filter((reading, i) => reading.position !== ordered[i - 1]?.position) : thin(ordered, TOLERANCE);
  const recorded = kept.map((reading): Point => ({
    beat: reading.beat, value: valueInUnit(piece, param, reading.position, unit), shape: held ? 'hold' : 'line', bend: 0,
  }));
  const track = existing ? laneTrack(piece, existing, param) : null;
  const valueAt = track ? (beat: number): number => valueInUnit(piece, param, trackAt(track, beat), unit) : null;
  return { id: existing?.id ?? newId, target, unit, on: true, points: punch(existing?.points ?? [], recorded, valueAt) };
}
