import { snapBeats } from '../../music/grid';
import { MIN_GAP } from '../../automation/editPoints';
import type { LaneRange, LaneRangePoint } from './laneRange';

/**
 * Every point on the nearest line of a grid that is counted from the piece's beginning; of several that fall together
 * the last stays.
 * @param at where the stretch begins in the piece
 */
export function quantised(stretch: LaneRange, gridBeats: number, at: number): LaneRange {
  const made: LaneRangePoint[] = [];
  for (const point of stretch.points) {
    const beat = Math.min(stretch.lengthBeats, Math.max(0, snapBeats(at + point.beat, gridBeats) - at));
    if (made.length > 0 && beat - made[made.length - 1]!.beat < MIN_GAP) made.pop();
    made.push({ ...point, beat });
  }
  return { ...stretch, points: made };
}

/** Twice as long, half as long: the same moves, faster or slower. */
export const stretchedBy = (stretch: LaneRange, factor: number): LaneRange => ({
  ...stretch,
  lengthBeats: stretch.lengthBeats * factor,
  points: stretch.points.map((point) => ({ ...point, beat: point.beat * factor })),
});
