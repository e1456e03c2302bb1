import type { Lane, Piece, Target } from '../piece';
import { MIN_GAP, splitPoints } from '../../automation/editPoints';
import { laneBaseFor } from './laneBase';
import type { Point } from '../../automation/point';
import { inOrder, thin, type Reading } from '../../automation/thin';

/** Default tolerance of thinning as a share of the rail: less than a hand can hold still. */
export const TOLERANCE = 0.006;
export const SEAM_BEATS = 1 / 16;
const AS_EVER: PassSettings = { tolerance: TOLERANCE, seamBeats: SEAM_BEATS };

/** Recording mode: see RECORD_MODES. */
export type RecordMode = 'read' | 'touch' | 'latch' | 'write';

export const RECORD_MODES: readonly { readonly id: RecordMode; readonly name: string; readonly does: string }[] = [
  { id: 'read', name: 'Read', does: 'Moves play; hands are heard and nothing is recorded.' },
  { id: 'touch', name: 'Touch', does: 'Recorded while a hand is on it, then back to what was there.' },
  {
    id: 'latch',
    name: 'Latch',
    does: 'Recorded from the first touch on; what the hand left stays until playing stops.',
  },
  {
    id: 'write',
    name: 'Write',
    does: 'Every lane is written anew from the start of playing. Falls back to touch when playing stops.',
  },
];

export interface PassSettings {
  /** Tolerance of thinning as a share of the rail. */
  readonly tolerance: number;
  /** Beats in which a recorded move glides from, and back to, the previous values. */
  readonly seamBeats: number;
}

/**
 * The lane that a pass of recording leaves: the thinned readings replace the previous points, with a glide back to
 * these after them. Outside the pass nothing changes; without a lane the base value stays in force there.
 * @param readings positions on the rail with the beats at which they were heard
 * @returns null when nothing can be recorded
 */
export function laneFromPass(
  piece: Piece,
  target: Target,
  readings: readonly Reading[],
  newId: string,
  { tolerance, seamBeats } = AS_EVER,
): Lane | null {
  const on = laneBaseFor(piece, target, newId);
  const ordered = inOrder(readings);
  const first = ordered[0];
  const last = ordered[ordered.length - 1];
  if (!on || !first || !last) return null;
  const held = on.param.kind !== 'number';
  const kept = held
    ? ordered.filter((reading, i) => reading.position !== ordered[i - 1]?.position)
    : thin(ordered, tolerance);
  const recorded = kept.map((reading): Point => ({
    beat: reading.beat,
    value: on.value(reading.position),
    shape: held ? 'hold' : 'line',
    bend: 0,
  }));
  const from = Math.max(0, first.beat - seamBeats);
  const to = last.beat + seamBeats;
  const cut = [from, to].reduce((points, beat) => splitPoints(points, beat, on.before(beat)), on.lane.points);
  const before = cut
    .filter((point) => point.beat < from + 1e-9 && point.beat < first.beat)
    .map((point) => (isAt(point, from) && !held ? { ...point, shape: 'line' as const } : point));
  const after = cut.filter((point) => point.beat > to - 1e-9);
  return { ...on.lane, on: true, points: [...before, ...recorded, ...after] };
}

const isAt = (point: Point, beat: number): boolean => Math.abs(point.beat - beat) < 1e-9;

/**
 * The lane after a value was set in one go while recording (typed, tapped, switched): it holds from here to the next
 * point.
 */
export function laneFromStep(piece: Piece, target: Target, beat: number, position: number, newId: string): Lane | null {
  const on = laneBaseFor(piece, target, newId);
  if (!on) return null;
  const step: Point = { beat, value: on.value(position), shape: 'hold', bend: 0 };
  const lead = beat - MIN_GAP;
  const cut = lead > 0 ? splitPoints(on.lane.points, lead, on.before(lead)) : on.lane.points;
  const before = cut.filter((point) => point.beat < lead + 1e-9);
  const after = cut.filter((point) => point.beat > beat + 1e-9);
  return { ...on.lane, on: true, points: [...before, step, ...after] };
}

/** A step is preceded by a point this many beats before it: less than a sample at any tempo. */
const LEAD_BEATS = 1e-6;

/**
 * The lane recorded from Play: every reading holds until the next, as in the engine, so that it plays back as it was
 * heard. Outside [first reading, end) nothing changes.
 * @param readings positions on the rail with the beats at which they took effect
 * @param endBeat at which the previous values return
 */
export function laneFromSteps(
  piece: Piece,
  target: Target,
  readings: readonly Reading[],
  endBeat: number,
  newId: string,
): Lane | null {
  const on = laneBaseFor(piece, target, newId);
  const ordered = inOrder(readings).filter(({ position }, i, all) => position !== all[i - 1]?.position);
  const first = ordered[0];
  if (!on || !first) return null;
  const lead = first.beat - LEAD_BEATS;
  const old = on.lane.points;
  const before = lead > 0 ? splitPoints(old, lead, on.before(lead)).filter(({ beat }) => beat <= lead + 1e-9) : [];
  const steps = ordered.map(({ beat, position, number }): Point => ({
    beat,
    value: number === undefined ? on.value(position) : on.exact(number),
    shape: 'hold',
    bend: 0,
  }));
  const end = Math.max(endBeat, ordered[ordered.length - 1]!.beat + LEAD_BEATS);
  const after = splitPoints(old, end, on.before(end)).filter(({ beat }) => beat >= end - 1e-9);
  return { ...on.lane, on: true, points: [...ledTo(before), ...steps, ...after] };
}

/**
 * Points before a step: the last holds until it. It is left out where the one before holds the same, and is at the
 * start where there is none: a step can then be moved to an earlier beat.
 */
function ledTo(before: readonly Point[]): readonly Point[] {
  const [previous, last] = [before[before.length - 2], before[before.length - 1]];
  if (!last) return [];
  const rest = before.slice(0, -1);
  if (!previous) return [{ ...last, beat: 0, shape: 'hold', bend: 0 }];
  if (previous.shape === 'hold' && previous.value === last.value) return rest;
  return [...rest, { ...last, shape: 'hold', bend: 0 }];
}
