import { MIN_GAP } from '../../core/automation/editPoints';
import { laneFromPass, TOLERANCE } from '../../core/piece/moves/record';
import type { Snap } from '../../core/automation/snap';
import { pasteLaneRange, type LaneRangePoint } from '../../core/piece/moves/laneRange';
import type { Reading } from '../../core/automation/thin';
import type { Lane, Piece } from '../../core/piece/piece';
import type { Drag } from '../../ui/pointer';
import type { Drawing } from './DrawButton';

/** A line drawn with a finger: a position on the rail for each pixel; the later one where it passed twice. */
export type Stroke = Map<number, number>;

/** Adds the movement since the last call. */
export function strike(stroke: Stroke, drag: Drag, positionAt: (y: number) => number): void {
  const [fromX, fromY] = [drag.x - drag.dx, drag.y - drag.dy];
  const pixels = Math.max(1, Math.round(Math.abs(drag.dx)));
  for (let i = 1; i <= pixels; i += 1) {
    const share = i / pixels;
    stroke.set(Math.max(0, Math.round(fromX + drag.dx * share)), positionAt(fromY + drag.dy * share));
  }
}

/** The grid of steps where points fall on none. */
const STEP_BEATS = 0.5;

/**
 * The lane with the stroke laid into it, in as few points as it needs; as one line from its first place to its last, or
 * as steps.
 */
export function drawnLane(
  piece: Piece,
  lane: Lane,
  stroke: Stroke,
  pxPerBeat: number,
  drawing: Drawing,
  snap: Snap,
): Lane | null {
  const all = [...stroke].sort(([a], [b]) => a - b).map(([x, position]) => ({ beat: x / pxPerBeat, position }));
  const readings = drawing === 'line' ? [all[0]!, all[all.length - 1]!] : all;
  if (drawing === 'steps')
    return all.length < 2 ? null : steppedLane(piece, lane, all, snap.kind === 'grid' ? snap.beats : STEP_BEATS);
  return all.length < 2
    ? null
    : laneFromPass(piece, lane.target, readings, lane.id, { tolerance: TOLERANCE, seamBeats: MIN_GAP });
}

/** A held value for each line of the grid that the stroke covers: the finger's last value before the next. */
function steppedLane(piece: Piece, lane: Lane, readings: readonly Reading[], gridBeats: number): Lane | null {
  const steps = new Map<number, number>();
  for (const { beat, position } of readings) steps.set(Math.floor(beat / gridBeats) * gridBeats, position);
  const from = Math.min(...steps.keys());
  const points = [...steps].map(([beat, position]): LaneRangePoint => ({
    beat: beat - from,
    position,
    value: 0,
    shape: 'hold',
    bend: 0,
  }));
  const last = points[points.length - 1]!;
  const lengthBeats = last.beat + gridBeats;
  return pasteLaneRange(
    piece,
    lane.target,
    from,
    { lengthBeats, unit: lane.unit, points: [...points, { ...last, beat: lengthBeats }] },
    1,
    lane.id,
  );
}
