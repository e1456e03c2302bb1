import { secondsPerBeat } from '../../music/tempo';
import type { Param } from '../../params/param';
import { beatsToMs, paramAtPosition, paramPosition, syncedNote, toEngineNumber } from '../../params/resolve';
import { baseValue, contextOf, paramOf } from '../find';
import type { Lane, Piece, Target } from '../piece';
import { positionAt, segmentAt, type LaneTrack } from '../../automation/evaluate';
import { shapeIndex } from '../../automation/point';

type Timed = Pick<Piece, 'tempo' | 'sampleRate'>;

/** A lane's value, which may be in beats, as a place on the parameter's rail. */
export function lanePosition(piece: Timed, lane: Pick<Lane, 'unit'>, param: Param, value: number): number {
  return paramPosition(param, lane.unit === 'beats' ? beatsToMs(value, contextOf(piece)) : value);
}

/** A place on the rail as a value in the lane's unit. */
export function valueInUnit(piece: Timed, param: Param, position: number, unit: Lane['unit']): number {
  const number = paramAtPosition(param, position);
  return unit === 'beats' ? number / 1000 / secondsPerBeat(piece.tempo) : number;
}

/**
 * A lane made ready to be read: places by `placeOf` a beat, positions on the rail; switches and choices hold. Points
 * need not be in order.
 */
export function laneTrack(
  piece: Timed,
  lane: Pick<Lane, 'unit' | 'points'>,
  param: Param,
  placeOf: (beat: number) => number = (beat) => beat,
): LaneTrack {
  const points = [...lane.points].sort((a, b) => a.beat - b.beat);
  return {
    places: Float64Array.from(points, (point) => placeOf(point.beat)),
    positions: Float64Array.from(points, (point) => lanePosition(piece, lane, param, point.value)),
    shapes: Uint8Array.from(points, (point) => shapeIndex(param.kind === 'number' ? point.shape : 'hold')),
    bends: Float64Array.from(points, (point) => point.bend),
  };
}

/** Position on the rail, 0-1, at a place. */
export const trackAt = (track: LaneTrack, place: number): number =>
  positionAt(track, place, segmentAt(track, place, -1));

/** What a lane's points are counted in: a time set as a note value keeps following the tempo. */
export function laneUnit(piece: Piece, target: Target): Lane['unit'] {
  const param = paramOf(piece, target);
  const base = baseValue(piece, target);
  return param?.kind === 'number' && param.sync === 'time' && base !== undefined && syncedNote(base) ? 'beats' : 'own';
}

/** Where the base value of a target stands on its rail. */
export function basePosition(piece: Piece, target: Target, param: Param): number {
  return paramPosition(param, toEngineNumber(param, baseValue(piece, target) ?? param.initial, contextOf(piece)));
}
