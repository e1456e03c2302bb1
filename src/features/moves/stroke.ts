import { LEAST_GAP } from '../../core/moves/editPoints';
import { laneFromPass, TOLERANCE } from '../../core/moves/record';
import type { Lane, Piece } from '../../core/piece/piece';
import type { Drag } from '../../ui/pointer';

/** A line drawn with a finger: a place on the rail for each pixel it passed; where it passed twice, the later one. */
export type Stroke = Map<number, number>;

/** Takes in where the finger went since the last call. */
export function strike(stroke: Stroke, drag: Drag, positionAt: (y: number) => number): void {
  const [fromX, fromY] = [drag.x - drag.dx, drag.y - drag.dy];
  const pixels = Math.max(1, Math.round(Math.abs(drag.dx)));
  for (let i = 1; i <= pixels; i += 1) {
    const share = i / pixels;
    stroke.set(Math.max(0, Math.round(fromX + drag.dx * share)), positionAt(fromY + drag.dy * share));
  }
}

/** The lane with the stroke laid into it, in as few points as it needs. */
export function drawnLane(piece: Piece, lane: Lane, stroke: Stroke, pxPerBeat: number): Lane | null {
  const readings = [...stroke].sort(([a], [b]) => a - b).map(([x, position]) => ({ beat: x / pxPerBeat, position }));
  return readings.length < 2 ? null : laneFromPass(piece, lane.target, readings, lane.id, { tolerance: TOLERANCE, seamBeats: LEAST_GAP });
}
