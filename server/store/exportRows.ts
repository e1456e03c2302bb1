import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { exportFileSchema, exportOrderSchema, EXPORT_STATES, type ExportOrder } from '../../src/core/files/order';
import { exportNames } from '../../src/core/files/parts';
import type { Piece } from '../../src/core/piece/piece';
import { Problem } from '../http/problem';
import type { Db } from './database';

const MAX_STORED = 40;

const rowSchema = z.object({
  id: z.string(),
  piece_id: z.string(),
  made_at: z.string(),
  state: z.enum(EXPORT_STATES),
  message: z.string(),
  document: z.string(),
  files: z.string(),
});

/** An export as it is stored; how far a running one has come is known elsewhere. */
export interface StoredExport {
  readonly id: string;
  readonly piece: string;
  readonly madeAt: string;
  readonly state: (typeof EXPORT_STATES)[number];
  readonly message: string;
  readonly order: ExportOrder;
  readonly files: readonly z.infer<typeof exportFileSchema>[];
}

export interface StartedExport {
  readonly id: string;
  readonly order: ExportOrder;
  /** Of the files to write, with what says their kind. */
  readonly names: readonly string[];
  /** The piece as JSON. */
  readonly piece: string;
  /** Exports that were dropped to make room; their files are to be removed. */
  readonly dropped: readonly string[];
}

/** What is known of files written from pieces. */
export class ExportRows {
  constructor(private readonly db: Db) {
    db.prepare("UPDATE exports SET state = 'stopped', message = ? WHERE state IN ('waiting', 'running')").run(
      'The server was stopped while this was written. Nothing of it was kept: start it again.',
    );
  }

  /** Newest first. */
  list(piece: string): StoredExport[] {
    const rows = this.db.prepare('SELECT * FROM exports WHERE piece_id = ? ORDER BY made_at DESC').all(piece);
    return rows.flatMap((row) => readRow(row) ?? []);
  }

  find(id: string): StoredExport | null {
    return readRow(this.db.prepare('SELECT * FROM exports WHERE id = ?').get(id));
  }

  /** @throws Problem 422 when there is nothing to write */
  start(piece: Piece, order: ExportOrder): StartedExport {
    const kind = order.format.startsWith('flac') ? 'flac' : 'wav';
    const madeAt = new Date().toISOString();
    const names = exportNames(piece, order, madeAt.slice(0, 10)).map((name) => `${name}.${kind}`);
    if (names.length === 0) {
      throw new Problem(
        422,
        'Nothing to write',
        'No track or print of this piece was asked for. Choose some, then start again.',
      );
    }
    if (order.toBeat <= order.fromBeat) {
      throw new Problem(422, 'Nothing to write', 'The end lies before the beginning. Choose another stretch.');
    }
    const id = randomUUID();
    this.db
      .prepare(
        "INSERT INTO exports (id, piece_id, made_at, state, message, document, files) VALUES (?, ?, ?, 'waiting', '', ?, '[]')",
      )
      .run(id, piece.id, madeAt, JSON.stringify(order));
    return { id, order, names, piece: JSON.stringify(piece), dropped: this.dropOldest(piece.id) };
  }

  private dropOldest(piece: string): string[] {
    const finished = this.list(piece)
      .slice(MAX_STORED)
      .filter(({ state }) => state !== 'running' && state !== 'waiting')
      .map(({ id }) => id);
    for (const id of finished) this.remove(id);
    return finished;
  }

  tell(id: string, state: StoredExport['state'], message: string, files: StoredExport['files'] = []): void {
    this.db
      .prepare('UPDATE exports SET state = ?, message = ?, files = ? WHERE id = ?')
      .run(state, message, JSON.stringify(files), id);
  }

  /** @returns false when there was none */
  remove(id: string): boolean {
    return this.db.prepare('DELETE FROM exports WHERE id = ?').run(id).changes > 0;
  }
}

/** Null for a row that this version cannot read. */
function readRow(row: unknown): StoredExport | null {
  const read = rowSchema.safeParse(row).data;
  if (!read) return null;
  try {
    const { id, piece_id: piece, made_at: madeAt, state, message } = read;
    const order = exportOrderSchema.parse(JSON.parse(read.document));
    const files = z.array(exportFileSchema).parse(JSON.parse(read.files));
    return { id, piece, madeAt, state, message, order, files };
  } catch {
    return null;
  }
}
