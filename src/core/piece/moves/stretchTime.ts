import { snapBeats } from '../../music/grid';
import { MIN_GAP } from '../../automation/editPoints';
import type { LaneRange, LaneRangePoint } from './laneRange';

/**
 * Quantises every point to a grid that is counted from the piece's beginning; of several on one line the last is kept.
 * @param at beginning of the range in the piece
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

/** Scales the range in time: the same moves, faster or slower. */
export const stretchedBy = (stretch: LaneRange, factor: number): LaneRange => ({
  ...stretch,
  lengthBeats: stretch.lengthBeats * factor,
  points: stretch.points.map((point) => ({ ...point, beat: point.beat * factor })),
});
