import { GRIDS, gridBeats } from '../effects/hold/params';
import { metreAt } from '../music/metre';
import type { Piece } from './piece';
import { tempoOf } from './tempoOf';

/**
 * Beats from line to line of a grid of Play at a beat, where a bar may be another than before; 0 for none.
 * @param grid one of the ids in `GRIDS`
 */
export function playGrid(piece: Piece, grid: string, beat: number): number {
  const index = GRIDS.findIndex((id) => id === grid);
  return index < 0 ? 0 : gridBeats(index, metreAt(beat, tempoOf(piece)).beatsPerBar);
}
