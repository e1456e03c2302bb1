import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { historyEntrySchema, type HistoryEntry } from '../src/core/piece/edit';
import { pieceSchema, type Piece } from '../src/core/piece/piece';
import { readPiece } from '../src/core/piece/versions';
import type { Db } from './database';
import { Problem } from './problem';

const KEPT_REVISIONS = 50;

export interface StoredPiece {
  readonly piece: Piece;
  readonly revision: number;
  readonly history: { readonly entries: HistoryEntry[]; readonly cursor: number };
}

export interface PieceListing {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
}

/** A save: the piece, and the history from place `from` on, which replaces what stood there. */
export const saveSchema = z.strictObject({
  saveId: z.string().min(1).max(64),
  piece: pieceSchema,
  history: z.strictObject({ from: z.number().int().min(0), entries: z.array(historyEntrySchema), cursor: z.number().int().min(0) }),
});
export type Save = z.infer<typeof saveSchema>;

const rowSchema = z.object({ id: z.string(), name: z.string(), revision: z.number(), document: z.string(), history_cursor: z.number(), last_save: z.string(), updated_at: z.string() });
type Row = z.infer<typeof rowSchema>;

/** Pieces in the database, each save a revision. */
export class PieceStore {
  constructor(private readonly db: Db) {}

  list(): PieceListing[] {
    const rows = this.db.prepare('SELECT id, name, revision, updated_at AS updatedAt FROM pieces ORDER BY updated_at DESC').all();
    return z.array(z.object({ id: z.string(), name: z.string(), revision: z.number(), updatedAt: z.string() })).parse(rows);
  }

  read(id: string): StoredPiece {
    const row = this.row(id);
    const entries = z
      .array(z.object({ entry: z.string() }))
      .parse(this.db.prepare('SELECT entry FROM history WHERE piece_id = ? ORDER BY place').all(id))
      .map(({ entry }) => historyEntrySchema.parse(JSON.parse(entry)));
    return { piece: readPiece(JSON.parse(row.document)), revision: row.revision, history: { entries, cursor: row.history_cursor } };
  }

  create(piece: Piece): number {
    const now = new Date().toISOString();
    const made = this.db
      .prepare('INSERT INTO pieces (id, name, revision, document, updated_at) VALUES (?, ?, 1, ?, ?) ON CONFLICT DO NOTHING')
      .run(piece.id, piece.name, JSON.stringify(piece), now);
    if (made.changes === 0) throw new Problem(409, 'That piece exists already', 'A piece with this id is stored; it was left as it is.');
    return 1;
  }

  /**
   * Saves over revision `base`. The same save sent twice counts once, so that a lost answer can be asked for again.
   * When another save came first, this one is kept as a piece of its own and the answer is a 409 that names it.
   */
  save(id: string, base: number, save: Save): number {
    const row = this.row(id);
    if (row.last_save === save.saveId) return row.revision;
    if (row.revision !== base) throw this.conflict(row, save.piece);
    const now = new Date().toISOString();
    const revision = row.revision + 1;
    this.db.transaction(() => {
      this.db.prepare('INSERT OR REPLACE INTO revisions (piece_id, revision, document, saved_at) VALUES (?, ?, ?, ?)').run(id, row.revision, row.document, row.updated_at);
      this.db.prepare('DELETE FROM revisions WHERE piece_id = ? AND revision <= ?').run(id, row.revision - KEPT_REVISIONS);
      this.db
        .prepare('UPDATE pieces SET name = ?, revision = ?, document = ?, history_cursor = ?, last_save = ?, updated_at = ? WHERE id = ?')
        .run(save.piece.name, revision, JSON.stringify(save.piece), save.history.cursor, save.saveId, now, id);
      this.writeHistory(id, save);
    })();
    return revision;
  }

  private writeHistory(id: string, save: Save): void {
    this.db.prepare('DELETE FROM history WHERE piece_id = ? AND place >= ?').run(id, save.history.from);
    const insert = this.db.prepare('INSERT INTO history (piece_id, place, entry) VALUES (?, ?, ?)');
    save.history.entries.forEach((entry, i) => insert.run(id, save.history.from + i, JSON.stringify(entry)));
  }

  private conflict(row: Row, mine: Piece): Problem {
    const copy: Piece = { ...mine, id: `${mine.id.slice(0, 40)}-${randomUUID().slice(0, 8)}`, name: `${mine.name.slice(0, 100)} (kept copy)` };
    this.create(copy);
    return new Problem(
      409, 'This piece was changed elsewhere',
      `Both versions are kept: what was saved elsewhere as “${row.name}”, yours as “${copy.name}”.`,
      { revision: row.revision, keptAs: copy.id },
    );
  }

  private row(id: string): Row {
    const row = this.db.prepare('SELECT * FROM pieces WHERE id = ?').get(id);
    if (!row) throw new Problem(404, 'There is no such piece', 'It may have been removed. Choose another on the Shelf.');
    return rowSchema.parse(row);
  }
}
