import { placeBeat, placeSeconds } from '../music/tempo';
import type { Piece } from './piece';
import { tempoOf } from './tempoOf';

/** By how much something is nudged: notes of the piece, or time that no tempo changes. */
export type Nudge = { readonly name: string } & ({ readonly beats: number } | { readonly seconds: number });

/** From the largest to the smallest; a bar is as long as the piece's. */
export const nudgesOf = ({ tempo }: Piece): readonly Nudge[] => [
  { name: 'bar', beats: tempo.beatsPerBar },
  { name: 'beat', beats: 1 },
  { name: '1/16', beats: 0.25 },
  { name: '10 ms', seconds: 0.01 },
  { name: '1 ms', seconds: 0.001 },
];

/** A place so much later, or earlier for a count under nought; never before the piece. */
export function nudged(piece: Piece, beat: number, nudge: Nudge, count: number): number {
  const tempo = tempoOf(piece);
  const to =
    'beats' in nudge ? beat + count * nudge.beats : placeBeat(placeSeconds(beat, tempo) + count * nudge.seconds, tempo);
  return Math.max(0, to);
}
