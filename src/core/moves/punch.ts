import type { Point } from './point';

/**
 * Lays newly recorded points over a lane: what lay between their first and last place is replaced, the rest stays.
 * @param valueAt the lane's value before recording, so that the seams keep it: null when there was no lane
 */
export function punch(existing: readonly Point[], recorded: readonly Point[], valueAt: ((beat: number) => number) | null): Point[] {
  const first = recorded[0];
  const last = recorded[recorded.length - 1];
  if (!first || !last) return [...existing];
  const before = existing.filter((point) => point.beat < first.beat - 1e-9);
  const after = existing.filter((point) => point.beat > last.beat + 1e-9);
  const seamIn: Point[] = [];
  const seamOut: Point[] = [];
  if (valueAt && before.length > 0 && first.beat > SEAM_BEATS) {
    seamIn.push({ beat: first.beat - SEAM_BEATS, value: valueAt(first.beat - SEAM_BEATS), shape: 'line', bend: 0 });
  }
  if (valueAt && after.length > 0) {
    seamOut.push({ beat: last.beat + SEAM_BEATS, value: valueAt(last.beat + SEAM_BEATS), shape: 'line', bend: 0 });
  }
  const keepBefore = before.filter((point) => seamIn.length === 0 || point.beat < first.beat - SEAM_BEATS - 1e-9);
  const keepAfter = after.filter((point) => seamOut.length === 0 || point.beat > last.beat + SEAM_BEATS + 1e-9);
  return [...keepBefore, ...seamIn, ...recorded, ...seamOut, ...keepAfter];
}

/** Recorded moves glide back to what was there over this many beats. */
const SEAM_BEATS = 1 / 16;
