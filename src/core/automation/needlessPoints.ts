import type { Point } from './point';

const isLevel = ({ shape }: Point): boolean => shape !== 'curve';

/** Whether a lane is the same without a point between `before` and `next`. */
function isNeedless(before: Point | undefined, point: Point, next: Point | undefined): boolean {
  if (!before || before.value !== point.value || !isLevel(before) || !isLevel(point)) return false;
  return next === undefined || next.value === point.value || (before.shape === 'hold' && point.shape === 'hold');
}

/** Removes points that change nothing: where the lane is constant before and after them. Curves are kept. */
export function withoutNeedless(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  points.forEach((point, i) => {
    if (!isNeedless(kept.at(-1), point, points[i + 1])) kept.push(point);
  });
  return kept;
}
