import { createHash, randomUUID } from 'node:crypto';
import * as z from 'zod';
import {
  binnedPieceSchema,
  pieceListingSchema,
  type BinnedPiece,
  type History,
  type PieceListing,
  type Save,
} from '../../src/core/api/schemas';
import { historyEntrySchema, UNREADABLE_EDIT, type HistoryEntry } from '../../src/core/piece/edit';
import type { Piece } from '../../src/core/piece/piece';
import { hasOldHistory, migrateHistory } from '../../src/core/piece/versions/migrateHistory';
import type { Stored } from '../../src/core/piece/versions/changedLists';
import { CURRENT_VERSION, readPiece, UnreadablePiece } from '../../src/core/piece/versions/readPiece';
import { Problem } from '../http/problem';
import type { Db } from './database';

/** How every document begins that this program has written. */
const CURRENT_DOCUMENT = `{"version":${CURRENT_VERSION},`;
const KEPT_REVISIONS = 50;
const BIN_DAYS = 30;
export interface StoredPiece {
  readonly piece: Piece;
  readonly revision: number;
  readonly history: { readonly entries: HistoryEntry[]; readonly cursor: number };
  /** The save that made this revision, for a window that never heard whether its save arrived. */
  readonly lastSave: string;
}

const rowSchema = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number(),
  document: z.string(),
  history_cursor: z.number(),
  last_save: z.string(),
  updated_at: z.string(),
});
type Row = z.infer<typeof rowSchema>;

const conflictSchema = z.object({
  save_id: z.string(),
  copy_id: z.string(),
  /** Of the copy when it was last written for this conflict; a higher one means that somebody went on with it. */
  copy_revision: z.number(),
  revision: z.number(),
  removed: z.number(),
});

/** Pieces in the database, each save a revision. */
export class PieceStore {
  constructor(private readonly db: Db) {
    const oldest = new Date(Date.now() - BIN_DAYS * 86_400_000).toISOString();
    db.prepare('DELETE FROM pieces WHERE removed_at < ?').run(oldest);
  }

  /** Last changed first, without what is in the bin. */
  list(): PieceListing[] {
    const rows = this.db
      .prepare(
        `SELECT id, name, revision, updated_at AS updatedAt, copy_of AS copyOf FROM pieces
         WHERE removed_at IS NULL ORDER BY updated_at DESC`,
      )
      .all();
    return z.array(pieceListingSchema).parse(rows);
  }

  /** What is in the bin, removed last first. */
  bin(): BinnedPiece[] {
    const rows = this.db
      .prepare(
        `SELECT id, name, revision, updated_at AS updatedAt, copy_of AS copyOf, removed_at AS removedAt FROM pieces
         WHERE removed_at IS NOT NULL ORDER BY removed_at DESC`,
      )
      .all();
    return z.array(binnedPieceSchema).parse(rows);
  }

  /** Whether there is one of this id, in the bin or not. */
  has(id: string): boolean {
    return this.db.prepare('SELECT id FROM pieces WHERE id = ?').get(id) !== undefined;
  }

  /** @throws Problem 404 when there is none, 422 when it cannot be read, with the last revision that can */
  read(id: string): StoredPiece {
    const row = this.row(id);
    return {
      piece: this.readDocument(row),
      revision: row.revision,
      history: this.readHistory(row),
      lastSave: row.last_save,
    };
  }

  private readDocument(row: Row): Piece {
    const read = tryRead(row.document);
    if (read instanceof UnreadablePiece) {
      throw new Problem(422, 'This piece cannot be opened', `${read.message} It was left as it is.`, {
        name: row.name,
        lastGood: this.lastGood(row.id)?.savedAt ?? null,
      });
    }
    return read;
  }

  /** An entry that is damaged keeps its position, so that those around it do, but cannot be undone. */
  private readHistory({ id, history_cursor }: Row): StoredPiece['history'] {
    const rows = this.db.prepare('SELECT place, entry FROM history WHERE piece_id = ? ORDER BY place').all(id);
    const entries: HistoryEntry[] = [];
    for (const { place, entry } of z.array(z.object({ place: z.number(), entry: z.string() })).parse(rows)) {
      while (entries.length < place) entries.push(unreadableEntry(entries.length));
      entries.push(historyEntrySchema.safeParse(parsed(entry)).data ?? unreadableEntry(place));
    }
    while (entries.length < history_cursor) entries.push(unreadableEntry(entries.length));
    return { entries, cursor: history_cursor };
  }

  /** The stored text of a piece, whatever is in it. */
  document(id: string): { readonly name: string; readonly text: string } {
    const { name, document } = this.row(id);
    return { name, text: document };
  }

  /** @throws Problem 409 when the id exists */
  create(piece: Piece, copyOf: string | null = null): number {
    const made = this.db
      .prepare(
        `INSERT INTO pieces (id, name, revision, document, updated_at, copy_of) VALUES (?, ?, 1, ?, ?, ?)
         ON CONFLICT DO NOTHING`,
      )
      .run(piece.id, piece.name, JSON.stringify(piece), new Date().toISOString(), copyOf);
    if (made.changes === 0) {
      throw new Problem(409, 'That piece exists already', 'A piece with this id is stored; it was left as it is.');
    }
    return 1;
  }

  /** Imports a piece with its history; under another id when its own exists. @returns its id */
  bringIn(piece: Piece, history: History): string {
    const own = this.has(piece.id)
      ? { ...piece, id: randomUUID(), name: `${piece.name} (from an archive)`.slice(0, 120) }
      : piece;
    this.db.transaction(() => {
      this.create(own);
      this.putHistory(own.id, 0, history);
    })();
    return own.id;
  }

  /**
   * Saves over revision `base`. The same save sent twice counts once, so that a lost answer can be asked for again.
   * When another save came first, this one is kept as a piece of its own and the answer is a 409 that names it.
   */
  save(id: string, base: number, save: Save): number {
    const row = this.row(id);
    if (row.last_save === save.saveId) return row.revision;
    if (row.revision !== base) throw this.conflict(row, base, save);
    this.checkHistory(id, save.history);
    return this.db.transaction(() => this.put(row, save))();
  }

  private put(row: Row, { piece, history, saveId }: Pick<Save, 'piece' | 'history' | 'saveId'>): number {
    const { id, revision } = row;
    this.db
      .prepare(
        `INSERT OR REPLACE INTO revisions (piece_id, revision, document, saved_at, next_history_from)
         VALUES (?, ?, ?, ?, ?)`,
      )
      .run(id, revision, row.document, row.updated_at, history.from);
    this.db.prepare('DELETE FROM revisions WHERE piece_id = ? AND revision <= ?').run(id, revision - KEPT_REVISIONS);
    this.db
      .prepare('UPDATE pieces SET name = ?, revision = ?, document = ?, last_save = ?, updated_at = ? WHERE id = ?')
      .run(piece.name, revision + 1, JSON.stringify(piece), saveId, new Date().toISOString(), id);
    this.putHistory(id, history.from, history);
    return revision + 1;
  }

  private putHistory(id: string, from: number, { entries, cursor }: History): void {
    this.db.prepare('UPDATE pieces SET history_cursor = ? WHERE id = ?').run(cursor, id);
    this.db.prepare('DELETE FROM history WHERE piece_id = ? AND place >= ?').run(id, from);
    const insert = this.db.prepare('INSERT INTO history (piece_id, place, entry) VALUES (?, ?, ?)');
    entries.forEach((entry, i) => insert.run(id, from + i, JSON.stringify(entry)));
  }

  /** Entries have to follow the stored ones without a gap, which could never be filled. */
  private checkHistory(id: string, { from, entries, cursor }: Save['history']): void {
    const stored = this.historyLength(id);
    if (from > stored || cursor > from + entries.length) {
      throw new Problem(
        400,
        'The request is not understood',
        `history: it goes on from entry ${from} to ${from + entries.length} with the cursor at ${cursor}, where ${stored} are stored. Nothing was changed.`,
      );
    }
  }

  private historyLength(id: string): number {
    const counted = this.db
      .prepare(
        'SELECT max(coalesce(max(h.place) + 1, 0), p.history_cursor) AS n FROM pieces p LEFT JOIN history h ON h.piece_id = p.id WHERE p.id = ?',
      )
      .get(id);
    return z.object({ n: z.number() }).parse(counted).n;
  }

  /**
   * Keeps a save that came after another: in the copy that was made for this window and base before, or in a new one.
   */
  private conflict(row: Row, base: number, save: Save): Problem {
    const who = save.window ?? createHash('sha256').update(JSON.stringify(save.piece)).digest('hex');
    const copy = this.db.transaction(() => this.keepCopy(row, base, who, save))();
    return new Problem(
      409,
      'This piece was changed elsewhere',
      `Both versions are kept: what was saved elsewhere as “${row.name}”, yours as “${copy.name}”.`,
      { revision: row.revision, keptAs: copy.id },
    );
  }

  private keepCopy(row: Row, base: number, who: string, save: Save): Piece {
    const name = `${save.piece.name.slice(0, 100)} (kept copy)`;
    const known = this.copyBefore(row.id, base, who);
    if (known?.save_id === save.saveId) return { ...save.piece, id: known.copy_id, name };
    const before = known && !known.removed && known.copy_revision === known.revision ? known : null;
    const history = this.historyOfCopy(row.id, base, save.history);
    const id = before?.copy_id ?? `${row.id.slice(0, 40)}-${randomUUID().slice(0, 8)}`;
    const copy: Piece = { ...save.piece, id, name };
    let revision = 1;
    if (before)
      revision = this.put(this.row(copy.id), { piece: copy, history: { from: 0, ...history }, saveId: save.saveId });
    else {
      this.create(copy, row.id);
      this.putHistory(copy.id, 0, history);
    }
    this.db
      .prepare(
        'INSERT OR REPLACE INTO conflicts (piece_id, base, who, save_id, copy_id, copy_revision) VALUES (?, ?, ?, ?, ?, ?)',
      )
      .run(row.id, base, who, save.saveId, copy.id, revision);
    return copy;
  }

  /** The copy that was kept for this window and base, whatever became of it since. */
  private copyBefore(piece: string, base: number, who: string): z.infer<typeof conflictSchema> | null {
    const found = this.db
      .prepare(
        `SELECT c.save_id, c.copy_id, c.copy_revision, p.revision, p.removed_at IS NOT NULL AS removed
         FROM conflicts c JOIN pieces p ON p.id = c.copy_id WHERE c.piece_id = ? AND c.base = ? AND c.who = ?`,
      )
      .get(piece, base, who);
    return conflictSchema.optional().parse(found) ?? null;
  }

  /**
   * The history of a kept copy: the stored entries that the save goes on from, and its own. Where a save since has
   * replaced some of those, only its own are left.
   */
  private historyOfCopy(id: string, base: number, { from, entries, cursor }: Save['history']): History {
    const replaced = this.db
      .prepare(
        'SELECT min(next_history_from) AS least, count(next_history_from) AS n FROM revisions WHERE piece_id = ? AND revision >= ?',
      )
      .get(id, base);
    const { least, n } = z.object({ least: z.number().nullable(), n: z.number() }).parse(replaced);
    const row = this.row(id);
    const whole = n === row.revision - base && least !== null && least >= from;
    const before = whole ? this.readHistory(row).entries.slice(0, from) : [];
    if (before.length === from)
      return { entries: [...before, ...entries], cursor: Math.min(cursor, from + entries.length) };
    return cursor >= from ? { entries, cursor: Math.min(cursor - from, entries.length) } : { entries: [], cursor: 0 };
  }

  /** Puts a piece into the bin. */
  remove(id: string): void {
    this.row(id);
    this.db.prepare('UPDATE pieces SET removed_at = ? WHERE id = ?').run(new Date().toISOString(), id);
  }

  /** Takes a piece out of the bin again. */
  restore(id: string): void {
    const changed = this.db
      .prepare('UPDATE pieces SET removed_at = NULL WHERE id = ? AND removed_at IS NOT NULL')
      .run(id);
    if (changed.changes === 0) this.row(id);
  }

  /**
   * Brings the newest revision that can be read in as a piece of its own; the damaged one is left as it is.
   * @returns its id
   */
  recover(id: string): string {
    const { name } = this.row(id);
    const good = this.lastGood(id);
    if (!good)
      throw new Problem(
        404,
        'There is no earlier state',
        'No stored revision of this piece can be read. It was left as it is.',
      );
    const piece: Piece = { ...good.piece, id: randomUUID(), name: `${name.slice(0, 100)} (earlier state)` };
    this.create(piece);
    return piece.id;
  }

  private lastGood(id: string): { readonly piece: Piece; readonly savedAt: string } | null {
    const rows = this.db
      .prepare('SELECT document, saved_at FROM revisions WHERE piece_id = ? ORDER BY revision DESC')
      .iterate(id);
    for (const row of rows) {
      const { document, saved_at } = z.object({ document: z.string(), saved_at: z.string() }).parse(row);
      const piece = tryRead(document);
      if (!(piece instanceof UnreadablePiece)) return { piece, savedAt: saved_at };
    }
    return null;
  }

  private row(id: string): Row {
    const found = this.db.prepare('SELECT * FROM pieces WHERE id = ? AND removed_at IS NULL').get(id);
    if (!found)
      throw new Problem(404, 'There is no such piece', 'It may have been removed. Choose another on the Shelf.');
    const row = rowSchema.parse(found);
    return row.document.startsWith(CURRENT_DOCUMENT) ? row : this.upgraded(row);
  }

  /**
   * Brings a document of an older version to this one together with its history, which is of no use without it. One
   * that cannot be read stays as it is.
   */
  private upgraded(row: Row): Row {
    const stored = parsed(row.document);
    const piece = tryRead(row.document);
    if (piece instanceof UnreadablePiece || !hasOldHistory(stored)) return row;
    const { entries, cursor } = this.readHistory(row);
    const document = JSON.stringify(piece);
    this.db.transaction(() => {
      this.db.prepare('UPDATE pieces SET document = ? WHERE id = ?').run(document, row.id);
      this.putHistory(row.id, 0, { entries: migrateHistory(stored as Stored, entries, cursor), cursor });
    })();
    return { ...row, document };
  }
}

/** A placeholder for a history entry that cannot be read. */
const unreadableEntry = (position: number): HistoryEntry => ({
  id: `unreadable-${position}`,
  at: '',
  edit: UNREADABLE_EDIT,
  label: 'An edit that cannot be read any more',
  forward: [],
  backward: [],
});

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

function tryRead(document: string): Piece | UnreadablePiece {
  try {
    return readPiece(parsed(document));
  } catch (error) {
    if (error instanceof UnreadablePiece) return error;
    throw error;
  }
}
