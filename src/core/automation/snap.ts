import { snapBeats } from '../music/grid';

/** What points fall on: lines of a grid, the hits of the sound, or nothing. */
export type Snap =
  { readonly kind: 'off' } | { readonly kind: 'grid'; readonly beats: number } | { readonly kind: 'hits' };

/** Snaps a position. @param hits beats of the hits, ascending */
export function snapped(beat: number, snap: Snap, hits: readonly number[]): number {
  if (snap.kind === 'grid') return snapBeats(beat, snap.beats);
  if (snap.kind === 'off' || hits.length === 0) return beat;
  return hits.reduce((best, hit) => (Math.abs(hit - beat) < Math.abs(best - beat) ? hit : best));
}
