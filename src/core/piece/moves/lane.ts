import { noteBeats } from '../../music/noteValue';
import { secondsPerBeat } from '../../music/tempo';
import type { Param, ValueContext } from '../../params/param';
import { clampNumber } from '../../params/taper';
import { beatsToMs, paramAtPosition, paramPosition, syncedNote, toEngineNumber } from '../../params/resolve';
import { baseValue, contextOf, paramOf } from '../find';
import type { Lane, Piece, Target } from '../piece';
import { positionAt, segmentAt, type LaneTrack } from '../../automation/evaluate';
import { shapeIndex } from '../../automation/point';

/** Tempo and sample rate: of a piece, or a context of values. */
type Timed = ValueContext;

/** A lane's value, which may be in beats, as a number of the engine. */
export const laneNumber = (piece: Timed, { unit }: Pick<Lane, 'unit'>, param: Param, value: number): number => {
  const number = unit === 'beats' ? beatsToMs(value, piece) : value;
  return param.kind === 'number' ? clampNumber(number, param.min, param.max) : number;
};

/** A lane's value, which may be in beats, as a position on the parameter's rail. */
export const lanePosition = (piece: Timed, lane: Pick<Lane, 'unit'>, param: Param, value: number): number =>
  paramPosition(param, laneNumber(piece, lane, param, value));

/** A number of the engine as a value in the lane's unit. */
export const numberInUnit = (piece: Timed, number: number, unit: Lane['unit']): number =>
  unit === 'beats' ? number / 1000 / secondsPerBeat(piece.tempo) : number;

/** A position on the rail as a value in the lane's unit. */
export const valueInUnit = (piece: Timed, param: Param, position: number, unit: Lane['unit']): number =>
  numberInUnit(piece, paramAtPosition(param, position), unit);

/**
 * A lane prepared for evaluation: places by `placeOf` a beat, positions on the rail; switches and choices hold. Points
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
    times: Float64Array.from(points, (point) => placeOf(point.beat)),
    positions: Float64Array.from(points, (point) => lanePosition(piece, lane, param, point.value)),
    numbers: Float64Array.from(points, ({ value }) => {
      const number = laneNumber(piece, lane, param, value);
      return param.kind === 'number' ? number : paramAtPosition(param, paramPosition(param, number));
    }),
    shapes: Uint8Array.from(points, (point) => shapeIndex(param.kind === 'number' ? point.shape : 'hold')),
    bends: Float64Array.from(points, (point) => point.bend),
  };
}

/** Position on the rail, 0-1, at a place. */
export const trackAt = (track: LaneTrack, place: number): number =>
  positionAt(track, place, segmentAt(track, place, -1));

/** Unit of a lane's points: a time set as a note value keeps following the tempo. */
export function laneUnit(piece: Piece, target: Target): Lane['unit'] {
  const param = paramOf(piece, target);
  const base = baseValue(piece, target);
  return param?.kind === 'number' && param.sync === 'time' && base !== undefined && syncedNote(base) ? 'beats' : 'own';
}

/** The base value of a target as a number of the engine. */
export const baseNumber = (piece: Piece, target: Target, param: Param): number =>
  toEngineNumber(param, baseValue(piece, target) ?? param.initial, contextOf(piece));

/** The base value of a target in a lane's unit, so that the lane gives the very same number. */
export function baseInUnit(piece: Piece, target: Target, param: Param, unit: Lane['unit']): number {
  const note = unit === 'beats' ? syncedNote(baseValue(piece, target) ?? param.initial) : null;
  return note ? noteBeats(note, piece.tempo.beatsPerBar) : numberInUnit(piece, baseNumber(piece, target, param), unit);
}

/** Position of a target's base value on its rail. */
export const basePosition = (piece: Piece, target: Target, param: Param): number =>
  paramPosition(param, baseNumber(piece, target, param));
