import { GRIDS, gridBeats } from '../effects/hold/params';
import { metreAt } from '../music/metre';
import type { Piece } from './piece';
import { tempoOf } from './tempoOf';

/**
 * Distance of the lines of Play's grid at a beat, in beats, by the metre there; 0 for none.
 * @param grid one of the ids in `GRIDS`
 */
export function playGrid(piece: Piece, grid: string, beat: number): number {
  const index = GRIDS.findIndex((id) => id === grid);
  return index < 0 ? 0 : gridBeats(index, metreAt(beat, tempoOf(piece)).beatsPerBar);
}
