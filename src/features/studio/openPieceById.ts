import * as z from 'zod';
import { channelIds } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import type { Address } from '../../data/address';
import { readStored, writeStored } from '../../data/browserStorage';
import { freeName } from '../../core/piece/freeName';
import type { Template } from '../../core/piece/templates';
import { createPiece, listPieces } from '../../data/api';
import { usePreferences } from '../../data/preferences';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';

/** The piece that is opened at the next start. */
const LAST_OPEN = 'zephiro.open';

/** Ids of pieces as they were opened, the last one first. */
const OPENED = 'zephiro.opened';
const MAX_OPENED = 200;
const openedSchema = z.array(z.string());

export const openedPieces = (): readonly string[] => readStored(OPENED, openedSchema, []);

export const lastOpened = (): string | null => localStorage.getItem(LAST_OPEN);

/**
 * Opens a piece and shows its first track, or the channel and effect that an address names.
 * @throws ApiProblem when it cannot be read or the server does not answer; the piece that was open stays
 */
export async function openPieceById(id: string, at?: Pick<Address, 'channel' | 'slot'>): Promise<void> {
  await useOpenPiece.getState().open(id);
  localStorage.setItem(LAST_OPEN, id);
  writeStored(OPENED, [id, ...openedPieces().filter((other) => other !== id)].slice(0, MAX_OPENED));
  const { piece } = useOpenPiece.getState();
  const { channel } = useView.getState();
  const wanted = at?.channel ?? channel;
  const shown = piece && channelIds(piece).includes(wanted) ? wanted : (piece?.tracks[0]?.id ?? MAIN);
  useView.setState({ channel: shown, slot: shown === at?.channel ? at.slot : null, clip: null, range: null });
}

/**
 * Stores a new piece under a name that no other has, and opens it.
 * @throws ApiProblem when it cannot be stored or opened; the piece that was open stays
 */
export async function openNewPiece(template: Template): Promise<void> {
  const piece = template.make(newId(), newId);
  const names = (await listPieces()).map(({ name }) => name);
  const { newPieceRate } = usePreferences.getState();
  await createPiece({ ...piece, name: freeName(piece.name, names), sampleRate: newPieceRate });
  await openPieceById(piece.id);
}
