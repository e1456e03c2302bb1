import type { Param, ParamValue } from '../../params/param';
import { fromEngineNumber, paramAtPosition, paramPosition, toEngineNumber } from '../../params/resolve';
import { allTargets } from '../allTargets';
import { baseValue, contextOf, findLane, paramOf } from '../find';
import type { Lane, Piece, Snapshot, Target } from '../piece';
import { splitPoints } from '../../automation/editPoints';
import { laneBaseFor } from './laneBase';
import { laneTrack, trackAt } from './lane';
import type { Point } from '../../automation/point';
import { laneFromStep } from './record';

/** Distance on the rail below which a value counts as the same. */
const SAME = 1e-6;

/** A value that moves to that of a snapshot: positions on the rail, 0-1. */
export interface Goal {
  readonly target: Target;
  readonly param: Param;
  readonly value: ParamValue;
  readonly from: number;
  readonly to: number;
}

/** The values of a channel, or of the whole piece for null, at a beat: those of lanes, else the base values. */
export function takeSnapshot(piece: Piece, channel: string | null, beat: number, id: string, name: string): Snapshot {
  const values = allTargets(piece, channel).flatMap((target) => {
    const param = paramOf(piece, target);
    const base = baseValue(piece, target);
    if (!param || base === undefined) return [];
    const lane = findLane(piece, target);
    return [
      {
        target,
        value: lane?.on
          ? fromEngineNumber(param, paramAtPosition(param, trackAt(laneTrack(piece, lane, param), beat)))
          : base,
      },
    ];
  });
  return { id, name, channel, values };
}

/** The values of a snapshot that differ at a beat; targets that no longer exist are skipped. */
export function goalsOf(piece: Piece, snapshot: Snapshot, beat: number): Goal[] {
  return snapshot.values.flatMap(({ target, value }): Goal[] => {
    const param = paramOf(piece, target);
    if (!param) return [];
    const lane = findLane(piece, target);
    const context = contextOf(piece);
    const from = lane?.on
      ? trackAt(laneTrack(piece, lane, param), beat)
      : paramPosition(param, toEngineNumber(param, baseValue(piece, target) ?? param.initial, context));
    const to = paramPosition(param, toEngineNumber(param, value, context));
    return Math.abs(to - from) < SAME ? [] : [{ target, param, value, from, to }];
  });
}

/**
 * Position of a goal on its rail at a share of the way, 0-1: switches go on at the beginning and off at the end,
 * choices change in the middle.
 */
export function morphedAt({ param, from, to }: Goal, share: number): number {
  if (param.kind === 'number') return from + (to - from) * share;
  if (param.kind === 'choice') return share < 0.5 ? from : to;
  return to > from || share >= 1 ? to : from;
}

/**
 * The lanes that move to a snapshot from a beat on, over a number of beats, and stay there up to the next points.
 * @param newId makes the id of a new lane, from its number
 */
export function morphLanes(
  piece: Piece,
  snapshot: Snapshot,
  beat: number,
  overBeats: number,
  newId: (index: number) => string,
): Lane[] {
  return goalsOf(piece, snapshot, beat).flatMap((goal, i) => {
    const on = laneBaseFor(piece, goal.target, newId(i));
    if (!on) return [];
    if (goal.param.kind !== 'number' || overBeats === 0) {
      const step = goal.param.kind === 'choice' ? overBeats / 2 : goal.to > goal.from ? 0 : overBeats;
      return laneFromStep(piece, goal.target, beat + step, goal.to, on.lane.id) ?? [];
    }
    const way: Point[] = [
      { beat, value: on.value(goal.from), shape: 'line', bend: 0 },
      { beat: beat + overBeats, value: on.value(goal.to), shape: 'hold', bend: 0 },
    ];
    const before = splitPoints(on.lane.points, beat, on.before(beat)).filter((point) => point.beat < beat);
    return [
      {
        ...on.lane,
        on: true,
        points: [...before, ...way, ...on.lane.points.filter((point) => point.beat > beat + overBeats)],
      },
    ];
  });
}
