import * as z from 'zod';
import { soundSchema, type SoundInfo } from '../../src/core/piece/soundInfo';
import type { Db } from './database';

export interface StoredSound extends SoundInfo {
  readonly hash: string;
}

/** What is known of the sounds on the disk. */
export class SoundRows {
  constructor(private readonly db: Db) {}

  find(hash: string): StoredSound | null {
    const row = this.db
      .prepare('SELECT hash, name, frames, sample_rate AS sampleRate, channels FROM sounds WHERE hash = ?')
      .get(hash);
    return row ? soundSchema.extend({ hash: z.string() }).parse(row) : null;
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
