import { historySchema, saveSchema, type History } from '../../src/core/api/schemas';
import { blockSchema } from '../../src/core/piece/block';
import { pieceSchema, type Piece } from '../../src/core/piece/piece';
import { hasOldHistory, migrateHistory } from '../../src/core/piece/versions/migrateHistory';
import type { Stored } from '../../src/core/piece/versions/changedLists';
import { readPiece, UnreadablePiece } from '../../src/core/piece/versions/readPiece';
import { exportOrderSchema } from '../../src/core/files/order';
import { checkJsonShape } from '../http/jsonShape';
import { Problem } from '../http/problem';
import { BlockStore } from './blockStore';
import type { Db } from './database';
import { ExportRows, type StartedExport } from './exportRows';
import { PieceStore } from './pieceStore';
import { SoundRows } from './soundRows';

/** Of the history in an archive: less than what is read of one. */
const MAX_ARCHIVED_HISTORY_BYTES = 48 * 1024 * 1024;

/** JSON as bytes, ready to be sent. */
const bytesOf = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value));

/** @throws Problem 400 for invalid JSON, 413 for JSON beyond the limits */
function parse(bytes: Uint8Array): unknown {
  checkJsonShape(bytes);
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new Problem(400, 'The request is not understood', 'The body is no JSON. Nothing was changed.');
  }
}

/**
 * All that the server keeps in its database. Runs in a thread of its own (`store.worker.ts`): documents of many
 * megabytes are parsed, checked and written there, and the server goes on answering. Documents go in and out as bytes.
 */
export function createStoreApi(db: Db) {
  const pieces = new PieceStore(db);
  const blocks = new BlockStore(db);
  const exports = new ExportRows(db);
  const sounds = new SoundRows(db);
  return {
    listPieces: () => pieces.list(),
    listBin: () => pieces.bin(),
    hasPiece: (id: string) => pieces.has(id),
    readPiece: (id: string) => {
      const stored = pieces.read(id);
      return { revision: stored.revision, body: bytesOf(stored) };
    },
    /** What an archive of a piece holds beside its sounds. */
    readForArchive: (id: string) => {
      const { piece, history } = pieces.read(id);
      const recent = historyWithin(history, MAX_ARCHIVED_HISTORY_BYTES);
      return { name: piece.name, sounds: Object.keys(piece.sounds), piece: bytesOf(piece), history: bytesOf(recent) };
    },
    createPiece: (body: Uint8Array) => pieces.create(pieceSchema.parse(parse(body))),
    savePiece: (id: string, base: number, body: Uint8Array) => {
      const save = saveSchema.parse(parse(body));
      if (save.piece.id !== id) {
        throw new Problem(
          400,
          'The request is not understood',
          'The piece’s id is not that of the address. Nothing was changed.',
        );
      }
      return pieces.save(id, base, save);
    },
    /** Throws what is wrong with the documents of an archive. */
    checkArchived: (piece: Uint8Array, history: Uint8Array | null) => void readArchived(piece, history),
    /** @returns the id of the piece here */
    bringInPiece: (piece: Uint8Array, history: Uint8Array | null) => {
      const archived = readArchived(piece, history);
      return pieces.bringIn(archived.piece, archived.history);
    },
    /** A piece of the server's own making. */
    installPiece: (piece: Piece) => pieces.create(piece),
    pieceDocument: (id: string) => pieces.document(id),
    removePiece: (id: string) => pieces.remove(id),
    restorePiece: (id: string) => pieces.restore(id),
    recoverPiece: (id: string) => pieces.recover(id),
    listBlocks: () => bytesOf(blocks.list()),
    createBlock: (body: Uint8Array) => blocks.create(blockSchema.parse(parse(body))),
    removeBlock: (id: string) => blocks.remove(id),
    startExport: (body: Uint8Array): StartedExport => {
      const order = exportOrderSchema.parse(parse(body));
      return exports.start(pieces.read(order.piece).piece, order);
    },
    listExports: (piece: string) => exports.list(piece),
    findExport: (id: string) => exports.find(id),
    tellExport: (...told: Parameters<ExportRows['tell']>) => exports.tell(...told),
    removeExport: (id: string) => exports.remove(id),
    findSound: (hash: string) => sounds.find(hash),
    listSounds: () => sounds.list(),
    unusedSounds: (before: string) => sounds.unused(before),
    removeSound: (hash: string) => sounds.remove(hash),
    addSound: (sound: Parameters<SoundRows['add']>[0]) => sounds.add(sound),
  };
}
export type StoreApi = ReturnType<typeof createStoreApi>;

/**
 * The newest entries that take no more than so many bytes as JSON. Where the cursor is before them, they lead nowhere
 * and are left out.
 */
export function historyWithin(history: History, maxBytes: number): History {
  const { entries, cursor } = history;
  let from = entries.length;
  for (let bytes = 0; from > 0; from -= 1) {
    bytes += Buffer.byteLength(JSON.stringify(entries[from - 1]));
    if (bytes > maxBytes) break;
  }
  if (from === 0) return history;
  return cursor < from ? { entries: [], cursor: 0 } : { entries: entries.slice(from), cursor: cursor - from };
}

/** The documents of an archive, brought to this version. */
export interface Archived {
  readonly piece: Piece;
  readonly history: History;
}

/** @throws Problem 422 saying what is wrong with them */
export function readArchived(piece: Uint8Array, history: Uint8Array | null): Archived {
  try {
    const stored = parse(piece);
    const read = readPiece(stored);
    const { entries, cursor } = historySchema.parse(history ? parse(history) : { entries: [], cursor: 0 });
    return {
      piece: read,
      history: {
        entries: hasOldHistory(stored) ? migrateHistory(stored as Stored, entries, cursor) : entries,
        cursor,
      },
    };
  } catch (error) {
    if (!(error instanceof UnreadablePiece)) throw error;
    throw new Problem(422, 'This archive cannot be used', `${error.message} Nothing already stored was changed.`);
  }
}
