import { makeRandom } from '../../dsp/random';
import { shapeAt } from '../../dsp/lfo';
import { paramPosition, toEngineNumber } from '../../params/resolve';
import { baseValue, contextOf } from '../find';
import type { Lane, Piece, Target } from '../piece';
import { MIN_GAP, splitPoints } from '../../automation/editPoints';
import { applyBend, splitBend } from '../../automation/evaluate';
import { laneBaseFor, type LaneBase } from './laneBase';
import { laneTrack, trackAt } from './lane';
import type { Point, Shape } from '../../automation/point';
import { thin } from '../../automation/thin';
import { TOLERANCE } from './record';

/**
 * A point of a lane range: its beat from the beginning of the range, and its value both as a position on the rail, 0-1,
 * and in the unit of the lane it was copied from.
 */
export interface LaneRangePoint {
  readonly beat: number;
  readonly position: number;
  readonly value: number;
  readonly shape: Shape;
  readonly bend: number;
}

/** A copied part of a lane, with points at both ends. */
export interface LaneRange {
  readonly lengthBeats: number;
  readonly unit: Lane['unit'];
  readonly points: readonly LaneRangePoint[];
}

/** Copies a lane between two beats. @returns null when its target no longer exists */
export function copyLaneRange(piece: Piece, lane: Lane, from: number, to: number): LaneRange | null {
  const on = laneBaseFor(piece, lane.target, lane.id);
  if (!on) return null;
  const cut = [from, to].reduce((points, beat) => splitPoints(points, beat, on.before(beat)), lane.points);
  const within = cut.filter(({ beat }) => beat > from - 1e-9 && beat < to + 1e-9);
  const { positions } = laneTrack(piece, { ...lane, points: within }, on.param);
  return {
    lengthBeats: to - from,
    unit: lane.unit,
    points: within.map((point, i) => ({ ...point, beat: point.beat - from, position: positions[i]! })),
  };
}

/**
 * A lane with a range pasted into it, `times` times in succession; nothing changes outside of it.
 * @param by whether values keep their positions on the rail, or their values if both lanes have the same unit
 */
export function pasteLaneRange(
  piece: Piece,
  target: Target,
  at: number,
  stretch: LaneRange,
  times: number,
  newId: string,
  by: 'position' | 'value' = 'position',
): Lane | null {
  const on = laneBaseFor(piece, target, newId);
  if (!on || stretch.points.length === 0) return null;
  const held = on.param.kind !== 'number';
  const point = ({ beat, position, value, shape, bend }: LaneRangePoint, offset: number): Point => ({
    beat: offset + beat,
    value: by === 'value' && stretch.unit === on.lane.unit ? inRange(on, value) : on.value(position),
    shape: held ? 'hold' : shape,
    bend,
  });
  const laid = Array.from({ length: times }, (_, n) =>
    stretch.points.map((made, i) =>
      point(ended(made, i === stretch.points.length - 1 && n < times - 1), at + n * stretch.lengthBeats),
    ),
  ).flat();
  return { ...on.lane, on: true, points: between(on, at, at + times * stretch.lengthBeats, laid) };
}

/** The last point of a repetition comes just before the first of the next. */
const ended = (point: LaneRangePoint, before: boolean): LaneRangePoint =>
  before ? { ...point, beat: point.beat - MIN_GAP } : point;

function inRange({ param, value }: LaneBase, wanted: number): number {
  const [a, b] = [value(0), value(1)];
  return param.kind === 'number' ? Math.min(Math.max(a, b), Math.max(Math.min(a, b), wanted)) : wanted;
}

/** The points of a lane, those between two beats replaced by others. */
function between(on: LaneBase, from: number, to: number, laid: readonly Point[]): Point[] {
  const [start, end] = [from - MIN_GAP, to + MIN_GAP];
  const edges = [start, end].filter((beat) => beat >= 0);
  const cut = edges.reduce((points, beat) => splitPoints(points, beat, on.before(beat)), on.lane.points);
  const before = cut
    .filter(({ beat }) => beat < start + 1e-9)
    .map((point) =>
      Math.abs(point.beat - start) < 1e-9 && on.param.kind === 'number'
        ? { ...point, shape: 'line' as const, bend: 0 }
        : point,
    );
  return [...before, ...laid, ...cut.filter(({ beat }) => beat > end - 1e-9)];
}

/** The lane at its base value between two beats. */
export function clearLaneRange(piece: Piece, lane: Lane, from: number, to: number): Lane | null {
  const on = laneBaseFor(piece, lane.target, lane.id);
  if (!on) return null;
  const value = on.value(
    paramPosition(
      on.param,
      toEngineNumber(on.param, baseValue(piece, lane.target) ?? on.param.initial, contextOf(piece)),
    ),
  );
  const laid = [from, to].map((beat): Point => ({
    beat,
    value,
    shape: on.param.kind === 'number' ? 'line' : 'hold',
    bend: 0,
  }));
  return { ...lane, points: between(on, from, to, laid) };
}

/** Mirrored in time. A jump becomes a segment of MIN_GAP. */
export function flippedInTime(stretch: LaneRange): LaneRange {
  const { points, lengthBeats } = stretch;
  const made: LaneRangePoint[] = [];
  for (let i = points.length - 1; i > 0; i -= 1) {
    const [start, end] = [points[i - 1]!, points[i]!];
    const from = start.shape === 'hold' ? start : end;
    const beat = lengthBeats - end.beat;
    if (end.position !== from.position) stopBefore(made, beat, end);
    made.push({ ...from, beat, shape: start.shape, bend: -start.bend });
  }
  const first = points[0]!;
  return { ...stretch, points: [...made, { ...first, beat: lengthBeats, shape: 'line', bend: 0 }] };
}

/**
 * Ends the segment that leads to `end` at `beat` MIN_GAP earlier, so that a jump can follow. A shorter segment leads
 * into the jump.
 */
function stopBefore(made: LaneRangePoint[], beat: number, end: LaneRangePoint): void {
  const last = made[made.length - 1];
  if (!last || last.shape === 'hold' || beat - last.beat <= MIN_GAP) return;
  const share = 1 - MIN_GAP / (beat - last.beat);
  const bend = last.shape === 'curve' ? last.bend : 0;
  made[made.length - 1] = { ...last, bend: splitBend(bend, share)[0] };
  made.push({
    ...end,
    beat: beat - MIN_GAP,
    position: last.position + (end.position - last.position) * applyBend(share, bend),
    shape: 'line',
    bend: 0,
  });
}

/** Mirrored in value, within its own lowest and highest. */
export function flippedInValue(stretch: LaneRange): LaneRange {
  const [low, high] = reach(stretch);
  return moved(stretch, (position) => low + high - position);
}

/** Scaled about the middle of its values. */
export function scaled(stretch: LaneRange, factor: number): LaneRange {
  const [low, high] = reach(stretch);
  const middle = (low + high) / 2;
  return moved(stretch, (position) => middle + (position - middle) * factor);
}

/** Raised or lowered by a ramp, from nothing at the beginning to `share` at the end. */
export const tilted = (stretch: LaneRange, share: number): LaneRange =>
  moved(stretch, (position, beat) => position + (share * beat) / stretch.lengthBeats);

const reach = ({ points }: LaneRange): [number, number] => [
  points.reduce((a, { position }) => Math.min(a, position), 1),
  points.reduce((a, { position }) => Math.max(a, position), 0),
];

function moved(stretch: LaneRange, to: (position: number, beat: number) => number): LaneRange {
  return {
    ...stretch,
    points: stretch.points.map((point) => ({
      ...point,
      position: Math.min(1, Math.max(0, to(point.position, point.beat))),
    })),
  };
}

const SMOOTH_STEPS = 96;

/** Moving average over an eighth of the range; both ends stay. */
export function smoothed(piece: Pick<Piece, 'tempo' | 'sampleRate'>, stretch: LaneRange): LaneRange {
  const track = laneTrack(
    piece,
    {
      unit: 'own',
      points: stretch.points.map(({ beat, position, shape, bend }) => ({ beat, value: position, shape, bend })),
    },
    UNIT,
  );
  const at = (i: number): number => trackAt(track, (stretch.lengthBeats * i) / SMOOTH_STEPS);
  const half = SMOOTH_STEPS / 16;
  const mean = (i: number): number => {
    const width = Math.min(half, i, SMOOTH_STEPS - i);
    let sum = 0;
    for (let k = -width; k <= width; k += 1) sum += at(i + k);
    return sum / (2 * width + 1);
  };
  return fromPositions(
    stretch,
    Array.from({ length: SMOOTH_STEPS + 1 }, (_, i) => mean(i)),
  );
}

const UNIT = {
  kind: 'number',
  unit: 'ratio',
  min: 0,
  max: 1,
  initial: 0,
  taper: { kind: 'linear' },
  smoothingSeconds: 0,
  label: '',
  hint: '',
  group: '',
} as const;

function fromPositions(stretch: Pick<LaneRange, 'lengthBeats' | 'unit'>, positions: readonly number[]): LaneRange {
  const kept = thin(
    positions.map((position, i) => ({ beat: (stretch.lengthBeats * i) / (positions.length - 1), position })),
    TOLERANCE,
  );
  return {
    ...stretch,
    points: kept.map(({ beat, position }) => ({ beat, position, value: position, shape: 'line', bend: 0 })),
  };
}

export const DRAWN_SHAPES = ['rise', 'fall', 'sine', 'triangle', 'square', 'random'] as const;
export type DrawnShape = (typeof DRAWN_SHAPES)[number];
const SINE_POINTS = 8;

/**
 * A shape repeated every `turnBeats`, between two positions of the rail.
 * @param roll number that selects the values of the random shape
 */
export function drawnShape(
  shape: DrawnShape,
  lengthBeats: number,
  turnBeats: number,
  low: number,
  high: number,
  roll: number,
): LaneRange {
  const turns = Math.max(1, Math.round(lengthBeats / turnBeats));
  const turn = lengthBeats / turns;
  const random = makeRandom(roll);
  const at = (beat: number, share: number, as: Shape = 'line', bend = 0): LaneRangePoint => ({
    beat,
    position: low + (high - low) * share,
    value: 0,
    shape: as,
    bend,
  });
  const one = (n: number): LaneRangePoint[] => {
    const start = n * turn;
    const end = start + turn - MIN_GAP;
    if (shape === 'rise') return [at(start, 0), at(end, 1)];
    if (shape === 'fall') return [at(start, 1), at(end, 0)];
    if (shape === 'square') return [at(start, 1, 'hold'), at(start + turn / 2, 0, 'hold')];
    if (shape === 'random') return [at(start, random(), 'hold')];
    if (shape === 'triangle') return [at(start, 0), at(start + turn / 2, 1)];
    return Array.from({ length: SINE_POINTS }, (_, k) =>
      at(start + (k * turn) / SINE_POINTS, 0.5 - 0.5 * shapeAt(0, k / SINE_POINTS + 0.25), 'curve', SINE_BENDS[k]!),
    );
  };
  const points = Array.from({ length: turns }, (_, n) => one(n)).flat();
  const last = points[points.length - 1]!;
  const closing =
    shape === 'rise' || shape === 'fall'
      ? last
      : at(lengthBeats, shape === 'sine' || shape === 'triangle' ? 0 : (last.position - low) / (high - low || 1));
  const body = shape === 'rise' || shape === 'fall' ? points.slice(0, -1) : points;
  return { lengthBeats, unit: 'own', points: [...body, { ...closing, beat: lengthBeats, shape: 'line', bend: 0 }] };
}

/** How each eighth of a sine from its lowest bends: it leaves its turning points slowly. */
const SINE_BENDS: readonly number[] = [-0.593, -0.163, 0.163, 0.593, -0.593, -0.163, 0.163, 0.593];
