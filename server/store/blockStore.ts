import * as z from 'zod';
import { readBlock, type Block } from '../../src/core/piece/block';
import { Problem } from '../http/problem';
import type { Db } from './database';

/** Chains stored under a name, for any piece. */
export class BlockStore {
  constructor(private readonly db: Db) {}

  /** Sorted by name. A block that this version cannot read stays in the database but is not listed. */
  list(): Block[] {
    const rows = this.db.prepare('SELECT document FROM blocks ORDER BY name COLLATE NOCASE, made_at').all();
    return z
      .array(z.object({ document: z.string() }))
      .parse(rows)
      .flatMap(({ document }) => tryRead(document) ?? []);
  }

  /** @throws Problem 409 when the id exists */
  create(block: Block): void {
    const made = this.db
      .prepare('INSERT INTO blocks (id, name, document, made_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING')
      .run(block.id, block.name, JSON.stringify(block), new Date().toISOString());
    if (made.changes === 0) {
      throw new Problem(409, 'That block exists already', 'A block with this id is stored; it was left as it is.');
    }
  }

  remove(id: string): void {
    const gone = this.db.prepare('DELETE FROM blocks WHERE id = ?').run(id);
    if (gone.changes === 0) throw new Problem(404, 'There is no such block', 'It may have been removed already.');
  }
}

function tryRead(document: string): Block | null {
  try {
    return readBlock(JSON.parse(document));
  } catch {
    return null;
  }
}
