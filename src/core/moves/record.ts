import type { Param } from '../params/param';
import { findLane, paramOf } from '../piece/find';
import type { Lane, Piece, Target } from '../piece/piece';
import { basePosition, laneTrack, laneUnit, trackAt, valueInUnit } from './lane';
import { LEAST_GAP, splitPoints } from './editPoints';
import type { Point } from './point';
import { inOrder, thin, type Reading } from './thin';

/** Readings may be missed by this share of the rail when they are thinned: less than a hand can hold still. */
export const TOLERANCE = 0.006;
/** Touch: recorded moves glide in from, and back to, what was there over this many beats. */
export const SEAM_BEATS = 1 / 16;

interface Ground {
  readonly param: Param;
  readonly lane: Lane;
  /** Value in the lane's unit at a place of the rail. */
  value(position: number): number;
  /** What was there before, in the lane's unit: the lane, else the base value. */
  before(beat: number): number;
}

function ground(piece: Piece, target: Target, newId: string): Ground | null {
  const param = paramOf(piece, target);
  if (!param) return null;
  const existing = findLane(piece, target);
  const lane = existing ?? { id: newId, target, unit: laneUnit(piece, target), on: true, points: [] };
  const value = (position: number): number => valueInUnit(piece, param, position, lane.unit);
  const track = existing ? laneTrack(piece, existing, param) : null;
  const base = basePosition(piece, target, param);
  return { param, lane, value, before: (beat) => value(track ? trackAt(track, beat) : base) };
}

/**
 * The lane that a pass of touch recording leaves: the readings thinned, laid over what was there, gliding back to it after them.
 * Outside the pass nothing changes, also where there was no lane: there the base value stays in force.
 * @param readings positions on the rail with the beats at which they were heard  @returns null when nothing can be recorded
 */
export function laneFromPass(piece: Piece, target: Target, readings: readonly Reading[], newId: string): Lane | null {
  const on = ground(piece, target, newId);
  const ordered = inOrder(readings);
  const first = ordered[0];
  const last = ordered[ordered.length - 1];
  if (!on || !first || !last) return null;
  const held = on.param.kind !== 'number';
  const kept = held ? ordered.filter((reading, i) => reading.position !== ordered[i - 1]?.position) : thin(ordered, TOLERANCE);
  const recorded = kept.map((reading): Point => ({ beat: reading.beat, value: on.value(reading.position), shape: held ? 'hold' : 'line', bend: 0 }));
  const from = Math.max(0, first.beat - SEAM_BEATS);
  const to = last.beat + SEAM_BEATS;
  const cut = [from, to].reduce((points, beat) => splitPoints(points, beat, on.before(beat)), on.lane.points);
  const before = cut.filter((point) => point.beat < from + 1e-9 && point.beat < first.beat).map((point) => (isAt(point, from) && !held ? { ...point, shape: 'line' as const } : point));
  const after = cut.filter((point) => point.beat > to - 1e-9);
  return { ...on.lane, on: true, points: [...before, ...recorded, ...after] };
}

const isAt = (point: Point, beat: number): boolean => Math.abs(point.beat - beat) < 1e-9;

/** The lane after a value was set in one go while recording (typed, tapped, switched): it holds from here to the next point. */
export function laneFromStep(piece: Piece, target: Target, beat: number, position: number, newId: string): Lane | null {
  const on = ground(piece, target, newId);
  if (!on) return null;
  const step: Point = { beat, value: on.value(position), shape: 'hold', bend: 0 };
  const lead = beat - LEAST_GAP;
  const cut = lead > 0 ? splitPoints(on.lane.points, lead, on.before(lead)) : on.lane.points;
  const before = cut.filter((point) => point.beat < lead + 1e-9);
  const after = cut.filter((point) => point.beat > beat + 1e-9);
  return { ...on.lane, on: true, points: [...before, step, ...after] };
}
