import { applyBend } from '../../core/automation/evaluate';
import type { Point } from '../../core/automation/point';

/** The part of a lane that is drawn, in pixels from its beginning. */
export interface Window {
  readonly from: number;
  readonly to: number;
}

/** Points that are drawn of a lane: from one before the window to one after it. */
export interface Shown {
  readonly first: number;
  /** One past the last. */
  readonly end: number;
}

const CURVE_STEPS = 16;
const DENSE_PX = 12;
/** Points per pixel from which each pixel is drawn as its range of values. */
const CROWDED = 2;

/** Index of the first point at or after a beat; points are in order. */
export function firstFrom(points: readonly Point[], beat: number): number {
  let low = 0;
  let high = points.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (points[middle]!.beat < beat) low = middle + 1;
    else high = middle;
  }
  return low;
}

export function shownPoints(points: readonly Point[], pxPerBeat: number, { from, to }: Window): Shown {
  const first = Math.max(0, firstFrom(points, from / pxPerBeat) - 1);
  return { first, end: Math.min(points.length, firstFrom(points, to / pxPerBeat) + 1) };
}

/** True where points are too dense to be told apart. */
export const isCrowded = ({ first, end }: Shown, { from, to }: Window): boolean =>
  end - first > CROWDED * Math.max(1, to - from);

/** Points close together are drawn small, so that the line stays in sight. */
export function standsClose(points: readonly Point[], i: number, pxPerBeat: number): boolean {
  const gap = Math.min(
    points[i]!.beat - (points[i - 1]?.beat ?? -Infinity),
    (points[i + 1]?.beat ?? Infinity) - points[i]!.beat,
  );
  return gap * pxPerBeat < DENSE_PX;
}

interface Line {
  readonly points: readonly Point[];
  readonly positions: ArrayLike<number>;
  /** Index in SHAPES of the segment after each point. */
  readonly shapes: ArrayLike<number>;
  readonly pxPerBeat: number;
  /** Place in the field of a place on the rail. */
  readonly y: (position: number) => number;
}

/** The line of a lane inside a window; where points crowd, an outline to be filled. */
export function linePath(line: Line, shown: Shown, window: Window): string {
  return isCrowded(shown, window) ? crowdedPath(line, shown) : segments(line, shown, window);
}

function segments({ points, positions, shapes, pxPerBeat, y }: Line, { first, end }: Shown, { to }: Window): string {
  const at = (position: number): string => y(position).toFixed(1);
  let path = `M${first === 0 ? 0 : (points[first]!.beat * pxPerBeat).toFixed(1)} ${at(positions[first]!)}`;
  for (let i = first; i < end; i += 1) {
    const x = points[i]!.beat * pxPerBeat;
    path += `L${x.toFixed(1)} ${at(positions[i]!)}`;
    const next = points[i + 1];
    if (!next) break;
    const length = next.beat * pxPerBeat - x;
    if (shapes[i] === 1) path += `H${(x + length).toFixed(1)}`;
    else if (shapes[i] === 2) {
      for (let k = 1; k < CURVE_STEPS; k += 1) {
        const share = applyBend(k / CURVE_STEPS, points[i]!.bend);
        path += `L${(x + (length * k) / CURVE_STEPS).toFixed(1)} ${at(positions[i]! + (positions[i + 1]! - positions[i]!) * share)}`;
      }
    }
  }
  return end === points.length ? `${path}H${to.toFixed(1)}` : path;
}

/** Least height of what is drawn for a pixel, so that a level stretch is seen. */
const THIN = 0.6;

/**
 * The outline of the range of values in each pixel: forth along the maxima, back along the minima. It is filled, which
 * is quicker than as many strokes.
 */
function crowdedPath({ points, positions, pxPerBeat, y }: Line, { first, end }: Shown): string {
  const out: string[] = [];
  const back: string[] = [];
  let i = first;
  while (i < end) {
    const x = Math.floor(points[i]!.beat * pxPerBeat);
    let low = 1;
    let high = 0;
    for (; i < end && Math.floor(points[i]!.beat * pxPerBeat) === x; i += 1) {
      low = Math.min(low, positions[i]!);
      high = Math.max(high, positions[i]!);
    }
    out.push(`${x} ${(y(high) - THIN).toFixed(1)}`);
    back.push(`${x} ${(y(low) + THIN).toFixed(1)}`);
  }
  return `M${out.concat(back.reverse()).join('L')}Z`;
}
