import { bendThrough, applyBend, type LaneTrack } from '../../core/automation/evaluate';
import { movePoint, moveSegment, shapePoint } from '../../core/automation/editPoints';
import { trackAt, valueInUnit } from '../../core/piece/moves/lane';
import type { Point } from '../../core/automation/point';
import type { Param } from '../../core/params/param';
import type { Lane, Piece } from '../../core/piece/piece';
import { firstFrom } from './lanePath';

/** A lane as it is on the screen. */
export interface LaneGeometry {
  readonly points: readonly Point[];
  readonly track: LaneTrack;
  readonly pxPerBeat: number;
  /** Place in the field of a place on the rail. */
  readonly y: (position: number) => number;
}

/** The dragged part: a point, the segment after a point (before the first: -1), or its bend handle. */
export interface Grip {
  readonly kind: 'point' | 'segment' | 'bend';
  readonly index: number;
}

/** Reach of a point, and of the line. */
const REACH_PX = 22;
const LINE_REACH_PX = 14;
/** Minimum width of a segment with a bend handle. */
const BENDABLE_PX = 56;
/** A bend smaller than this is set to 0. */
const STRAIGHT = 0.04;
const HOLD = 1;
const CURVE = 2;

export const pointPlace = ({ points, track, pxPerBeat, y }: LaneGeometry, index: number): { x: number; y: number } => ({
  x: points[index]!.beat * pxPerBeat,
  y: y(track.positions[index]!),
});

/** Position of the bend handle of the segment after a point; null where there is none. */
export function bendPlace(laid: LaneGeometry, index: number | null): { x: number; y: number } | null {
  const { points, track } = laid;
  if (index === null || index >= points.length - 1 || track.shapes[index] === HOLD) return null;
  const [a, b] = [pointPlace(laid, index), pointPlace(laid, index + 1)];
  if (b.x - a.x < BENDABLE_PX) return null;
  const share = track.shapes[index] === CURVE ? applyBend(0.5, points[index]!.bend) : 0.5;
  return { x: (a.x + b.x) / 2, y: a.y + (b.y - a.y) * share };
}

/** Index of the nearest point within reach, or null. */
export function pointAt(laid: LaneGeometry, x: number, y: number): number | null {
  const { points, pxPerBeat } = laid;
  let best: number | null = null;
  let away = REACH_PX;
  for (let i = firstFrom(points, (x - REACH_PX) / pxPerBeat); i < points.length; i += 1) {
    const at = pointPlace(laid, i);
    if (at.x > x + REACH_PX) break;
    const distance = Math.hypot(at.x - x, at.y - y);
    if (distance >= away) continue;
    away = distance;
    best = i;
  }
  return best;
}

/** The part under a pointer. @param chosen the point whose segment shows its bend handle */
export function gripAt(laid: LaneGeometry, x: number, y: number, chosen: number | null): Grip | null {
  const handle = bendPlace(laid, chosen);
  const index = pointAt(laid, x, y);
  const toHandle = handle ? Math.hypot(handle.x - x, handle.y - y) : Infinity;
  if (index !== null) {
    const at = pointPlace(laid, index);
    if (Math.hypot(at.x - x, at.y - y) <= toHandle) return { kind: 'point', index };
  }
  if (toHandle < REACH_PX) return { kind: 'bend', index: chosen! };
  const beat = x / laid.pxPerBeat;
  if (Math.abs(laid.y(trackAt(laid.track, beat)) - y) > LINE_REACH_PX) return null;
  return { kind: 'segment', index: firstFrom(laid.points, beat) - 1 };
}

/** Distance of a drag, in beats and along the rail; a segment moves in one direction only. */
export interface Way {
  readonly beats: number;
  readonly position: number;
}

const held = (position: number): number => Math.min(1, Math.max(0, position));

/** The points after a drag of `grip` by `by`. @param fall snaps a beat to the grid */
export function dragged(
  piece: Piece,
  lane: Lane,
  param: Param,
  laid: LaneGeometry,
  grip: Grip,
  by: Way,
  fall: (beat: number) => number,
): Point[] {
  const { points, track } = laid;
  const { index } = grip;
  const value = (i: number, way = by.position): number =>
    valueInUnit(piece, param, held(track.positions[i]! + way), lane.unit);
  if (grip.kind === 'bend') return bentPoints(laid, index, by.position);
  if (grip.kind === 'point') return movePoint(points, index, fall(points[index]!.beat + by.beats), value(index));
  if (index < 0 || index === points.length - 1) {
    const end = Math.max(0, index);
    return movePoint(points, end, points[end]!.beat, value(end));
  }
  const far = track.shapes[index] === HOLD ? points[index + 1]!.value : value(index + 1);
  const beats = by.beats === 0 ? 0 : fall(points[index]!.beat + by.beats) - points[index]!.beat;
  return moveSegment(points, index, beats, [value(index), far]);
}

function bentPoints({ points, track }: LaneGeometry, index: number, by: number): Point[] {
  const [from, to] = [track.positions[index]!, track.positions[index + 1]!];
  const rise = to - from;
  const share = track.shapes[index] === CURVE ? applyBend(0.5, points[index]!.bend) : 0.5;
  // A segment between equal values cannot be bent.
  const through = Math.abs(rise) < 1e-6 ? 0.5 : share + by / rise;
  const bend = bendThrough(0.5, Math.min(0.99, Math.max(0.01, through)));
  return shapePoint(points, index, Math.abs(bend) < STRAIGHT ? 'line' : 'curve', Math.abs(bend) < STRAIGHT ? 0 : bend);
}
