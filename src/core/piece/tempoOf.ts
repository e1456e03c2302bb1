import { tempoMapOf } from './moves/tempoLane';
import type { Tempo, TempoMap } from '../music/tempo';
import type { Lane, Piece } from './piece';

type Timed = Pick<Piece, 'tempo' | 'sampleRate' | 'lanes'>;

const known = new WeakMap<Lane, { readonly base: Piece['tempo']; readonly map: TempoMap }>();

/** The lane that moves the tempo, if there is one and it is followed. */
export const tempoLane = (piece: Pick<Piece, 'lanes'>): Lane | undefined =>
  piece.lanes.find(({ on, target }) => on && target.kind === 'tempo');

/** The tempo of a piece with its moves: what places in beats are to be turned into samples by, and back. */
export function tempoOf(piece: Timed): Tempo {
  const lane = tempoLane(piece);
  if (!lane) return piece.tempo;
  const kept = known.get(lane);
  if (kept && kept.base === piece.tempo) return { ...piece.tempo, map: kept.map };
  const map = tempoMapOf(piece, lane);
  known.set(lane, { base: piece.tempo, map });
  return { ...piece.tempo, map };
}
