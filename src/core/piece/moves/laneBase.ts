import type { Param } from '../../params/param';
import { findLane, paramOf } from '../find';
import type { Lane, Piece, Target } from '../piece';
import { heldNumberAt, positionAt, segmentAt } from '../../automation/evaluate';
import { baseInUnit, laneTrack, laneUnit, numberInUnit, valueInUnit } from './lane';

/** The lane that new points are merged into: the existing one, or an empty one over the base value. */
export interface LaneBase {
  readonly param: Param;
  readonly lane: Lane;
  /** Value in the lane's unit at a position of the rail. */
  value(position: number): number;
  /** A number of the engine in the lane's unit. */
  exact(number: number): number;
  /** The previous value, in the lane's unit: of the lane, else the base value. */
  before(beat: number): number;
}

/** @returns null when the target does not exist */
export function laneBaseFor(piece: Piece, target: Target, newId: string): LaneBase | null {
  const param = paramOf(piece, target);
  if (!param) return null;
  const existing = findLane(piece, target);
  const lane = existing ?? { id: newId, target, unit: laneUnit(piece, target), on: true, points: [] };
  const value = (position: number): number => valueInUnit(piece, param, position, lane.unit);
  const track = existing ? laneTrack(piece, existing, param) : null;
  const exact = (number: number): number => numberInUnit(piece, number, lane.unit);
  const before = (beat: number): number => {
    if (!track) return baseInUnit(piece, target, param, lane.unit);
    const segment = segmentAt(track, beat, -1);
    const held = heldNumberAt(track, segment);
    return Number.isNaN(held) ? value(positionAt(track, beat, segment)) : exact(held);
  };
  return { param, lane, value, exact, before };
}
