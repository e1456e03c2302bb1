import { snapBeats } from '../music/grid';
import { LEAST_GAP } from './editPoints';
import type { Stretch, StretchPoint } from './stretch';

/**
 * Every point on the nearest line of a grid that is counted from the piece's beginning; of several that fall together
 * the last stays.
 * @param at where the stretch begins in the piece
 */
export function quantised(stretch: Stretch, gridBeats: number, at: number): Stretch {
  const made: StretchPoint[] = [];
  for (const point of stretch.points) {
    const beat = Math.min(stretch.lengthBeats, Math.max(0, snapBeats(at + point.beat, gridBeats) - at));
    if (made.length > 0 && beat - made[made.length - 1]!.beat < LEAST_GAP) made.pop();
    made.push({ ...point, beat });
  }
  return { ...stretch, points: made };
}

/** Twice as long, half as long: the same moves, faster or slower. */
export const stretchedBy = (stretch: Stretch, factor: number): Stretch => ({
  ...stretch,
  lengthBeats: stretch.lengthBeats * factor,
  points: stretch.points.map((point) => ({ ...point, beat: point.beat * factor })),
});
