import * as z from 'zod';
import { storedSoundSchema, type StoredSound } from '../../src/core/api/schemas';
import type { Db } from './database';

/** Where documents are stored, by table and column. */
const DOCUMENTS = [
  ['pieces', 'document'],
  ['revisions', 'document'],
  ['history', 'entry'],
  ['blocks', 'document'],
  ['exports', 'document'],
] as const;

/** What is known of the sounds on the disk. */
export class SoundRows {
  constructor(private readonly db: Db) {}

  find(hash: string): StoredSound | null {
    const row = this.db
      .prepare('SELECT hash, name, frames, sample_rate AS sampleRate, channels FROM sounds WHERE hash = ?')
      .get(hash);
    return row ? storedSoundSchema.parse(row) : null;
  }

  /** The first name that a sound was given stays. */
  add({ hash, name, frames, sampleRate, channels }: StoredSound): void {
    this.db
      .prepare(
        `INSERT INTO sounds (hash, name, frames, sample_rate, channels, added_at) VALUES (?, ?, ?, ?, ?, ?)
         ON CONFLICT (hash) DO UPDATE SET frames = excluded.frames, sample_rate = excluded.sample_rate,
           channels = excluded.channels, added_at = excluded.added_at`,
      )
      .run(hash, name, frames, sampleRate, channels, new Date().toISOString());
  }

  list(): StoredSound[] {
    const rows = this.db.prepare('SELECT hash, name, frames, sample_rate AS sampleRate, channels FROM sounds').all();
    return z.array(storedSoundSchema).parse(rows);
  }

  /**
   * Sounds that came before `before` (ISO 8601) and that no document names: no piece, in the bin or not, no revision
   * or history of one, no block, no export.
   */
  unused(before: string): StoredSound[] {
    const named = this.namedHashes();
    const young = new Set(
      z.array(z.string()).parse(this.db.prepare('SELECT hash FROM sounds WHERE added_at >= ?').pluck().all(before)),
    );
    return this.list().filter(({ hash }) => !named.has(hash) && !young.has(hash));
  }

  remove(hash: string): void {
    this.db.prepare('DELETE FROM sounds WHERE hash = ?').run(hash);
  }

  /** Every text that may be a hash, in every document: a form that is new cannot be forgotten here. */
  private namedHashes(): Set<string> {
    const named = new Set<string>();
    for (const [table, column] of DOCUMENTS)
      for (const text of this.db.prepare(`SELECT ${column} FROM ${table}`).pluck().iterate())
        for (const [hash] of String(text).matchAll(/[0-9a-f]{64}/g)) named.add(hash);
    return named;
  }
}
