import { channelIds } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import type { Address } from '../../data/address';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';

/** The piece that is opened at the next start. */
const LAST_OPEN = 'zephiro.open';

export const lastOpened = (): string | null => localStorage.getItem(LAST_OPEN);

/**
 * Opens a piece and shows its first track, or the channel and effect that an address names.
 * @throws ApiProblem when it cannot be read or the server does not answer; the piece that was open stays
 */
export async function openPieceById(id: string, at?: Pick<Address, 'channel' | 'slot'>): Promise<void> {
  await useOpenPiece.getState().open(id);
  localStorage.setItem(LAST_OPEN, id);
  const { piece } = useOpenPiece.getState();
  const { channel } = useView.getState();
  const wanted = at?.channel ?? channel;
  const shown = piece && channelIds(piece).includes(wanted) ? wanted : (piece?.tracks[0]?.id ?? MAIN);
  useView.setState({ channel: shown, slot: shown === at?.channel ? at.slot : null, clip: null, range: null });
}
