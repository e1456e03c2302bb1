import { MAIN } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';

/** The piece that is opened at the next start. */
const LAST_OPEN = 'zephiro.open';

export const lastOpened = (): string | null => localStorage.getItem(LAST_OPEN);

/**
 * Opens a piece and shows its first track.
 * @throws ApiProblem when it cannot be read or the server does not answer; the piece that was open stays
 */
export async function openPieceById(id: string): Promise<void> {
  await useOpenPiece.getState().open(id);
  localStorage.setItem(LAST_OPEN, id);
  const { piece } = useOpenPiece.getState();
  const { channel, set } = useSession.getState();
  const shown = piece?.tracks.some((track) => track.id === channel) ? channel : (piece?.tracks[0]?.id ?? MAIN);
  set({ channel: shown, slot: null, clip: null, range: null });
}
