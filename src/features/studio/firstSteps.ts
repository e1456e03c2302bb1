import { keepPreferences } from '../../data/preferences';
import { useOpenPiece } from '../../data/openPiece';
import { openPieceById } from './openPieceById';

/** The demo piece, in which the first steps are taken. */
export const FIRST_STEPS_PIECE = 'salt-pier';

/**
 * Shows the first steps from the first one on, in the demo piece.
 * @throws ApiProblem when it cannot be opened; the piece that was open stays
 */
export async function showFirstSteps(): Promise<void> {
  if (useOpenPiece.getState().piece?.id !== FIRST_STEPS_PIECE) await openPieceById(FIRST_STEPS_PIECE);
  keepPreferences({ firstStep: 0 });
}
