import { storedSoundSchema, type StoredSound } from '../../src/core/api/schemas';
import type { Db } from './database';

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
         ON CONFLICT (hash) DO UPDATE SET frames = excluded.frames, sample_rate = excluded.sample_rate, channels = excluded.channels`,
      )
      .run(hash, name, frames, sampleRate, channels, new Date().toISOString());
  }
}
