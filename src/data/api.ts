import { API } from '../core/api/contract';
import { addressOf } from '../core/api/endpoint';
import type {
  BinnedPiece,
  PieceListing,
  SoundAmount,
  StorageUse,
  StoredSound,
  UploadStatus,
} from '../core/api/schemas';
import type { ExportOrder, ExportStatus } from '../core/files/order';
import type { Block } from '../core/piece/block';
import type { HistoryEntry } from '../core/piece/edit';
import type { Piece } from '../core/piece/piece';
import { readPiece } from '../core/piece/versions/readPiece';
import { call } from './apiClient';
import { newId } from './newId';

export { ApiProblem } from './apiClient';
export type { BinnedPiece, PieceListing, StoredSound, UploadStatus } from '../core/api/schemas';

export const listPieces = (): Promise<PieceListing[]> => call(API.listPieces);

/** Pieces that can be taken out of the bin again. */
export const listBin = (): Promise<BinnedPiece[]> => call(API.listBin);

export interface StoredPiece {
  readonly piece: Piece;
  readonly revision: number;
  readonly entries: HistoryEntry[];
  readonly cursor: number;
  /** The save that made this revision. */
  readonly lastSave: string;
}

export async function fetchPiece(id: string): Promise<StoredPiece> {
  const { piece, revision, history, lastSave } = await call(API.readPiece, { params: { id } });
  return { piece: readPiece(piece), revision, entries: history.entries, cursor: history.cursor, lastSave };
}

export interface SaveRequest {
  readonly saveId: string;
  /** Names this window, so that its saves after a conflict go into one kept copy. */
  readonly window?: string;
  readonly piece: Piece;
  readonly history: { readonly from: number; readonly entries: readonly HistoryEntry[]; readonly cursor: number };
}

/** Saves over `revision`; gives the new one. The same request may be sent again when its answer was lost. */
export const savePiece = async (revision: number, save: SaveRequest): Promise<number> =>
  (await call(API.savePiece, { params: { id: save.piece.id }, revision, body: save })).revision;

export async function createPiece(piece: Piece): Promise<void> {
  await call(API.createPiece, { body: piece });
}

/** Puts a piece into the bin. */
export async function removePiece(id: string): Promise<void> {
  await call(API.removePiece, { params: { id } });
}

/** Takes a piece out of the bin again. */
export async function restorePiece(id: string): Promise<void> {
  await call(API.restorePiece, { params: { id } });
}

/** Makes the last state that can be read a piece of its own; gives its id. */
export const recoverPiece = async (id: string): Promise<string> =>
  (await call(API.recoverPiece, { params: { id } })).id;

/** The stored file of a piece as it is, whether or not it can be read. */
export const pieceDocumentUrl = (id: string): string => addressOf(API.readDocument, { params: { id } });

export const listBlocks = (): Promise<Block[]> => call(API.listBlocks);

export async function saveBlock(block: Block): Promise<void> {
  await call(API.saveBlock, { body: block });
}

export async function removeBlock(id: string): Promise<void> {
  await call(API.removeBlock, { params: { id } });
}

const UPLOAD_LOOK_MS = 700;

/**
 * @param onStatus called repeatedly with the progress, while it takes longer than a moment
 * @param signal ends it; nothing of it is left on the server then
 */
export async function uploadSound(
  body: Blob,
  name: string,
  onStatus?: (status: UploadStatus) => void,
  signal?: AbortSignal,
): Promise<StoredSound> {
  const id = newId();
  const look = async (): Promise<void> => onStatus?.(await call(API.uploadStatus, { params: { id } }));
  const timer = onStatus ? setInterval(() => void look().catch(() => undefined), UPLOAD_LOOK_MS) : undefined;
  try {
    return await call(API.uploadSound, { query: { name, upload: id }, body, ...(signal && { signal }) });
  } finally {
    clearInterval(timer);
  }
}

export const soundFileUrl = (hash: string, name: string, bits: '16' | '24' | '32f'): string =>
  addressOf(API.downloadSound, { params: { hash }, query: { bits, name } });

export const listExports = (piece: string): Promise<ExportStatus[]> => call(API.listExports, { query: { piece } });

/** Starts to write files; the server goes on with it, whether or not this window stays. */
export async function startExport(order: ExportOrder): Promise<void> {
  await call(API.startExport, { body: order });
}

/** Stops an export, or removes a finished one with its files. */
export async function removeExport(id: string): Promise<void> {
  await call(API.removeExport, { params: { id } });
}

export const exportFileUrl = (id: string, name: string): string =>
  addressOf(API.readExportFile, { params: { id, name } });

/** All files of an export in one zip. */
export const exportArchiveUrl = (id: string): string => addressOf(API.readExportArchive, { params: { id } });

export const archiveUrl = (piece: string): string => addressOf(API.writeArchive, { params: { id: piece } });

/** Imports a piece from an archive; returns its id here. */
export const readArchive = async (body: Blob): Promise<string> => (await call(API.readArchive, { body })).id;

/** Disk space of the sounds on the server. */
export const readStorage = (): Promise<StorageUse> => call(API.readStorage);

/** Removes sounds that nothing uses; returns what was removed. */
export const clearStorage = (): Promise<SoundAmount> => call(API.clearStorage);
