import * as z from 'zod';
import { historyEntrySchema, type HistoryEntry } from '../core/piece/edit';
import { blockSchema, type Block } from '../core/piece/block';
import type { Piece } from '../core/piece/piece';
import { soundSchema } from '../core/piece/soundInfo';
import { exportStatusSchema, type ExportOrder, type ExportStatus } from '../core/files/order';
import { readPiece } from '../core/piece/versions/readPiece';
import { newId } from './newId';

const problemSchema = z.object({
  title: z.string(),
  detail: z.string(),
  status: z.number(),
  keptAs: z.string().optional(),
  lastGood: z.string().nullish(),
});

/** What the server said against a request, or that it could not be reached (`status` 0). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    /** The piece that a save was kept as, after a conflict. */
    readonly keptAs: string | null = null,
    /** When the last state of a piece that can be read was saved; null when there is none. */
    readonly lastGood: string | null = null,
  ) {
    super(`${title}. ${detail}`);
  }
}

const AWAY = new ApiProblem(
  0,
  'The server is away',
  'Your work is kept in this browser and is saved as soon as it is back.',
);

async function ask(url: string, init?: RequestInit): Promise<Response> {
  let answer: Response;
  try {
    answer = await fetch(url, init);
  } catch {
    throw AWAY;
  }
  if (answer.ok) return answer;
  if (answer.status === 502 || answer.status === 503) throw AWAY;
  const problem = problemSchema.safeParse(await answer.json().catch(() => null));
  if (!problem.success)
    throw new ApiProblem(answer.status, 'The server refused', `It answered ${answer.status}. Nothing was changed.`);
  throw new ApiProblem(
    answer.status,
    problem.data.title,
    problem.data.detail,
    problem.data.keptAs ?? null,
    problem.data.lastGood ?? null,
  );
}

const listingSchema = z.array(
  z.object({
    id: z.string(),
    name: z.string(),
    revision: z.number(),
    updatedAt: z.string(),
    copyOf: z.string().nullable(),
  }),
);
export type PieceListing = z.infer<typeof listingSchema>[number];

export const listPieces = async (): Promise<PieceListing[]> =>
  listingSchema.parse(await (await ask('/api/pieces')).json());

const storedSchema = z.object({
  piece: z.unknown(),
  revision: z.number(),
  lastSave: z.string(),
  history: z.object({ entries: z.array(historyEntrySchema), cursor: z.number() }),
});

export interface StoredPiece {
  readonly piece: Piece;
  readonly revision: number;
  readonly entries: HistoryEntry[];
  readonly cursor: number;
  /** The save that made this revision. */
  readonly lastSave: string;
}

export async function fetchPiece(id: string): Promise<StoredPiece> {
  const stored = storedSchema.parse(await (await ask(`/api/pieces/${encodeURIComponent(id)}`)).json());
  return {
    piece: readPiece(stored.piece),
    revision: stored.revision,
    entries: stored.history.entries,
    cursor: stored.history.cursor,
    lastSave: stored.lastSave,
  };
}

export interface SaveRequest {
  readonly saveId: string;
  /** Names this window, so that its saves after a conflict go into one kept copy. */
  readonly window?: string;
  readonly piece: Piece;
  readonly history: { readonly from: number; readonly entries: readonly HistoryEntry[]; readonly cursor: number };
}

const revisionSchema = z.object({ revision: z.number() });

/** Saves over `revision`; gives the new one. The same request may be sent again when its answer was lost. */
export async function savePiece(revision: number, save: SaveRequest): Promise<number> {
  const answer = await ask(`/api/pieces/${encodeURIComponent(save.piece.id)}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': `"${revision}"` },
    body: JSON.stringify(save),
  });
  return revisionSchema.parse(await answer.json()).revision;
}

export async function createPiece(piece: Piece): Promise<void> {
  await ask('/api/pieces', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(piece),
  });
}

/** Puts a piece into the bin. */
export async function removePiece(id: string): Promise<void> {
  await ask(`/api/pieces/${encodeURIComponent(id)}`, { method: 'DELETE' });
}

/** Takes a piece out of the bin again. */
export async function restorePiece(id: string): Promise<void> {
  await ask(`/api/pieces/${encodeURIComponent(id)}/restore`, { method: 'POST' });
}

/** Makes the last state that can be read a piece of its own; gives its id. */
export async function recoverPiece(id: string): Promise<string> {
  const answer = await ask(`/api/pieces/${encodeURIComponent(id)}/recover`, { method: 'POST' });
  return archivedSchema.parse(await answer.json()).id;
}

/** The stored file of a piece as it is, whether or not it can be read. */
export const pieceDocumentUrl = (id: string): string => `/api/pieces/${encodeURIComponent(id)}/document`;

export const listBlocks = async (): Promise<Block[]> =>
  z.array(blockSchema).parse(await (await ask('/api/blocks')).json());

export async function saveBlock(block: Block): Promise<void> {
  await ask('/api/blocks', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(block),
  });
}

export async function removeBlock(id: string): Promise<void> {
  await ask(`/api/blocks/${encodeURIComponent(id)}`, { method: 'DELETE' });
}

const storedSound = soundSchema.extend({ hash: z.string() });
export type StoredSound = z.infer<typeof storedSound>;

const uploadStatusSchema = z.object({
  state: z.enum(['receiving', 'waiting', 'working']),
  received: z.number(),
  ahead: z.number(),
});
/** How far an upload has come; `ahead` is how many others are worked on before it while it waits. */
export type UploadStatus = z.infer<typeof uploadStatusSchema>;

const UPLOAD_LOOK_MS = 700;

/** @param onStatus told again and again how far it has come, while it takes longer than a moment */
export async function uploadSound(
  body: Blob,
  name: string,
  onStatus?: (status: UploadStatus) => void,
): Promise<StoredSound> {
  const id = newId();
  const look = async (): Promise<void> => {
    const status = uploadStatusSchema.safeParse(await (await fetch(`/api/uploads/${id}`)).json()).data;
    if (status) onStatus?.(status);
  };
  const timer = onStatus ? setInterval(() => void look().catch(() => undefined), UPLOAD_LOOK_MS) : undefined;
  try {
    const url = `/api/sounds?upload=${id}&name=${encodeURIComponent(name)}`;
    const answer = await ask(url, { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body });
    return storedSound.parse(await answer.json());
  } finally {
    clearInterval(timer);
  }
}

export const soundFileUrl = (hash: string, name: string, bits: '16' | '24' | '32f'): string =>
  `/api/sounds/${hash}/file?bits=${bits}&name=${encodeURIComponent(name)}`;

export const listExports = async (piece: string): Promise<ExportStatus[]> =>
  z.array(exportStatusSchema).parse(await (await ask(`/api/exports?piece=${encodeURIComponent(piece)}`)).json());

/** Starts to write files; the server goes on with it, whether or not this window stays. */
export async function startExport(order: ExportOrder): Promise<void> {
  await ask('/api/exports', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(order),
  });
}

/** Stops an export, or puts a finished one away with its files. */
export async function removeExport(id: string): Promise<void> {
  await ask(`/api/exports/${encodeURIComponent(id)}`, { method: 'DELETE' });
}

export const exportFileUrl = (id: string, name: string): string =>
  `/api/exports/${encodeURIComponent(id)}/files/${encodeURIComponent(name)}`;

export const archiveUrl = (piece: string): string => `/api/pieces/${encodeURIComponent(piece)}/archive`;

const archivedSchema = z.object({ id: z.string() });

/** Brings a piece in from an archive; gives its id here. */
export async function readArchive(body: Blob): Promise<string> {
  const answer = await ask('/api/archives', { method: 'POST', headers: { 'Content-Type': 'application/zip' }, body });
  return archivedSchema.parse(await answer.json()).id;
}
