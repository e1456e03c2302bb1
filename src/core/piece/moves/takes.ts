import type { Lane, Piece, Target } from '../piece';
import { laneFromPass, type PassSettings } from './record';
import { clearLaneRange, pasteLaneRange, copyLaneRange } from './laneRange';
import { inOrder, type Reading } from '../../automation/thin';

/** Position on the rail of a pass at a beat: linear between readings, outside of them that of the nearest. */
function readAt(readings: readonly Reading[], beat: number): number {
  const after = readings.findIndex((reading) => reading.beat >= beat);
  if (after === 0) return readings[0]!.position;
  const before = readings[(after < 0 ? readings.length : after) - 1]!;
  const next = readings[after];
  if (!next || next.beat === before.beat) return before.position;
  return before.position + ((next.position - before.position) * (beat - before.beat)) / (next.beat - before.beat);
}

/**
 * The part of a pass between two beats, with readings at both ends where it reaches them; empty when it is elsewhere.
 */
export function clippedPass(readings: readonly Reading[], from: number, to: number): Reading[] {
  const ordered = inOrder(readings);
  const first = ordered[0];
  const last = ordered[ordered.length - 1];
  if (!first || !last || last.beat < from || first.beat > to) return [];
  const edge = (beat: number): Reading[] =>
    beat > first.beat && beat < last.beat ? [{ beat, position: readAt(ordered, beat) }] : [];
  return [...edge(from), ...ordered.filter(({ beat }) => beat >= from && beat <= to), ...edge(to)];
}

/**
 * A lane with the ranges of several passes restored to their state before the first of them.
 * @param before null where there was none
 */
export function withoutPasses(
  piece: Piece,
  lane: Lane,
  before: Lane | null,
  passes: readonly (readonly Reading[])[],
  seamBeats: number,
): Lane | null {
  const beats = passes.flat().map(({ beat }) => beat);
  const from = Math.max(0, beats.reduce((a, b) => Math.min(a, b), Infinity) - seamBeats);
  const to = beats.reduce((a, b) => Math.max(a, b), 0) + seamBeats;
  if (!before) return clearLaneRange(piece, lane, from, to);
  const was = copyLaneRange(
    { ...piece, lanes: piece.lanes.map((other) => (other.id === lane.id ? before : other)) },
    before,
    from,
    to,
  );
  return was && pasteLaneRange(piece, lane.target, from, was, 1, lane.id, 'value');
}

/** Merges a pass into a lane again, all of it or the part in a range: passes are combined range by range. */
export function passLaid(
  piece: Piece,
  target: Target,
  readings: readonly Reading[],
  stretch: { readonly start: number; readonly end: number } | null,
  newId: string,
  settings: PassSettings,
): Lane | null {
  const part = stretch ? clippedPass(readings, stretch.start, stretch.end) : readings;
  return part.length > 0 ? laneFromPass(piece, target, part, newId, settings) : null;
}
