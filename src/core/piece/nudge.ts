import { placeBeat, placeSeconds } from '../music/tempo';
import type { Piece } from './piece';
import { tempoOf } from './tempoOf';
import { barsLater } from '../music/grid';

/** Amounts of a nudge: note values, or times that do not depend on the tempo. */
export type Nudge = { readonly name: string } & (
  { readonly bars: number } | { readonly beats: number } | { readonly seconds: number }
);

/** From the largest to the smallest. */
export const NUDGES: readonly Nudge[] = [
  { name: 'bar', bars: 1 },
  { name: 'beat', beats: 1 },
  { name: '1/16', beats: 0.25 },
  { name: '10 ms', seconds: 0.01 },
  { name: '1 ms', seconds: 0.001 },
];

/** Moves a position later, or earlier for a negative count; not before the piece's beginning. */
export function nudged(piece: Piece, beat: number, nudge: Nudge, count: number): number {
  const tempo = tempoOf(piece);
  if ('bars' in nudge) return Math.max(0, barsLater(beat, count * nudge.bars, tempo));
  const to =
    'beats' in nudge ? beat + count * nudge.beats : placeBeat(placeSeconds(beat, tempo) + count * nudge.seconds, tempo);
  return Math.max(0, to);
}
