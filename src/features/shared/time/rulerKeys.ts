import { nextBarLine, snapBeats } from '../../../core/music/grid';
import type { Tempo } from '../../../core/music/tempo';

interface Beats {
  readonly start: number;
  readonly end: number;
}

/**
 * The beat that a key of the ruler moves to: arrows by a beat, Page by a bar, Home and End to the ends of a piece.
 * @returns null for any other key
 */
export function beatByKey(key: string, beat: number, lengthBeats: number, tempo: Tempo): number | null {
  const within = (to: number): number => Math.max(0, Math.min(lengthBeats, to));
  switch (key) {
    case 'ArrowRight':
      return within(snapBeats(beat, 1) + 1);
    case 'ArrowLeft':
      return within(snapBeats(beat, 1) - 1);
    case 'PageDown':
      return within(nextBarLine(beat, 1, tempo));
    case 'PageUp':
      return within(nextBarLine(beat, -1, tempo));
    case 'Home':
      return 0;
    case 'End':
      return lengthBeats;
    default:
      return null;
  }
}

/** Beats on which a range may begin: they include the bar lines of all metres. */
const GRID_BEATS = 0.25;

/**
 * The range from the playhead to its new position; of one that exists, the other edge stays.
 * @returns null when nothing is left of it
 */
export function rangeTo(range: Beats | null, playhead: number, to: number): Beats | null {
  const from = snapBeats(playhead, GRID_BEATS);
  const fixed = !range ? from : from === range.start ? range.end : range.start;
  return fixed === to ? null : { start: Math.min(fixed, to), end: Math.max(fixed, to) };
}
