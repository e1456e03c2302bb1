import { splitBend } from './evaluate';
import type { Point, Shape } from './point';

/** Minimum distance of two points, in beats. */
export const MIN_GAP = 1 / 256;

/** A point moved, held between its neighbours so that the order stays. */
export function movePoint(points: readonly Point[], index: number, beat: number, value: number): Point[] {
  const low = index > 0 ? points[index - 1]!.beat + MIN_GAP : 0;
  const high = index < points.length - 1 ? points[index + 1]!.beat - MIN_GAP : Infinity;
  const held = Math.max(low, Math.min(high, Math.max(0, beat)));
  return points.map((point, i) => (i === index ? { ...point, beat: held, value } : point));
}

/** Moves a segment: it keeps its length and stays between its neighbours. @param values of its two ends */
export function moveSegment(
  points: readonly Point[],
  index: number,
  byBeats: number,
  [first, second]: readonly [number, number],
): Point[] {
  const [a, b] = [points[index]!, points[index + 1]!];
  const low = (index > 0 ? points[index - 1]!.beat + MIN_GAP : 0) - a.beat;
  const high = (points[index + 2]?.beat ?? Infinity) - MIN_GAP - b.beat;
  const by = Math.max(low, Math.min(high, byBeats));
  return points.map((point, i) =>
    i === index
      ? { ...point, beat: point.beat + by, value: first }
      : i === index + 1
        ? { ...point, beat: point.beat + by, value: second }
        : point,
  );
}

/**
 * Inserts a point; it takes the shape of the segment it falls into.
 * @returns the points and the index of the new one
 */
export function addPoint(points: readonly Point[], beat: number, value: number): { points: Point[]; index: number } {
  const before = points.filter((point) => point.beat <= beat);
  const clash = points.some((point) => Math.abs(point.beat - beat) < MIN_GAP);
  if (clash) {
    const index = points.findIndex((point) => Math.abs(point.beat - beat) < MIN_GAP);
    return { points: movePoint(points, index, points[index]!.beat, value), index };
  }
  const shape: Shape = before[before.length - 1]?.shape === 'hold' ? 'hold' : 'line';
  return { points: [...before, { beat, value, shape, bend: 0 }, ...points.slice(before.length)], index: before.length };
}

/** Inserts a point at `beat`, where the lane's value is `value`, without changing the curve. */
export function splitPoints(points: readonly Point[], beat: number, value: number): Point[] {
  if (points.some((point) => Math.abs(point.beat - beat) < 1e-9)) return [...points];
  const at = points.filter((point) => point.beat < beat).length;
  const before = points[at - 1];
  const after = points[at];
  if (!before || !after || before.shape === 'hold')
    return [...points.slice(0, at), { beat, value, shape: 'hold', bend: 0 }, ...points.slice(at)];
  const [first, second] = splitBend(before.bend, (beat - before.beat) / (after.beat - before.beat));
  const curved = before.shape === 'curve';
  const cut: Point = { beat, value, shape: before.shape, bend: curved ? second : 0 };
  return [...points.slice(0, at - 1), curved ? { ...before, bend: first } : before, cut, ...points.slice(at)];
}

export const removePoint = (points: readonly Point[], index: number): Point[] => points.filter((_, i) => i !== index);

export const shapePoint = (points: readonly Point[], index: number, shape: Shape, bend: number): Point[] =>
  points.map((point, i) => (i === index ? { ...point, shape, bend } : point));
