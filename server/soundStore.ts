import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import * as z from 'zod';
import { soundSchema, type SoundInfo } from '../src/core/piece/piece';
import type { Db } from './database';
import { insideFolder } from './insideFolder';
import { Problem } from './problem';
import { startWorker } from './startWorker';

export interface StoredSound extends SoundInfo {
  readonly hash: string;
}

/** How bytes reach the disk; tests put a full one in its place. */
export type WriteWhole = (path: string, bytes: Uint8Array) => Promise<void>;

/** Writes and makes sure it is on the disk. */
export const writeWhole: WriteWhole = async (path, bytes) => {
  const file = await open(path, 'w');
  try {
    await file.writeFile(bytes);
    await file.sync();
  } finally {
    await file.close();
  }
};

const decodedSchema = z.discriminatedUnion('ok', [
  z.object({ ok: z.literal(true), wav: z.instanceof(Uint8Array), info: soundSchema.omit({ name: true }) }),
  z.object({ ok: z.literal(false), known: z.boolean(), message: z.string() }),
]);

/** Sound files on disk under the SHA-256 of their bytes, always 32-bit float WAV at their own rate. */
export class SoundStore {
  private readonly folder: string;
  private readonly arriving: string;

  /** @param built where its worker is in one file */
  constructor(private readonly db: Db, dataFolder: string, private readonly write: WriteWhole = writeWhole, private readonly built?: string) {
    this.folder = join(dataFolder, 'sounds');
    this.arriving = join(dataFolder, 'arriving');
    mkdirSync(this.folder, { recursive: true });
    mkdirSync(this.arriving, { recursive: true });
    for (const left of readdirSync(this.arriving)) rmSync(join(this.arriving, left), { force: true });
  }

  pathOf(hash: string): string {
    return insideFolder(this.folder, `${hash}.wav`);
  }

  read(hash: string): StoredSound {
    const row = this.db.prepare('SELECT hash, name, frames, sample_rate AS sampleRate, channels FROM sounds WHERE hash = ?').get(hash);
    if (!row || !existsSync(this.pathOf(hash))) throw new Problem(404, 'There is no such sound', 'It is not on this server.');
    return soundSchema.extend({ hash: z.string() }).parse(row);
  }

  /** Takes an upload of any kind we read: to a file of its own, decoded in a worker, kept as WAV. */
  async receive(body: Readable, name: string): Promise<StoredSound> {
    const path = join(this.arriving, randomUUID());
    try {
      await pipeline(body, createWriteStream(path));
      const decoded = await decodeInWorker(path, this.built);
      return await this.keep(decoded.wav, { ...decoded.info, name });
    } finally {
      await rm(path, { force: true });
    }
  }

  /** Keeps a finished WAV under its hash: written beside its place, synced, renamed. */
  async keep(wav: Uint8Array, info: SoundInfo): Promise<StoredSound> {
    const hash = createHash('sha256').update(wav).digest('hex');
    const path = this.pathOf(hash);
    if (!existsSync(path)) {
      const neighbour = join(this.arriving, `${hash}.${randomUUID()}`);
      try {
        await this.write(neighbour, wav);
        await rename(neighbour, path);
      } finally {
        await rm(neighbour, { force: true });
      }
    }
    this.db
      .prepare('INSERT INTO sounds (hash, name, frames, sample_rate, channels, added_at) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING')
      .run(hash, info.name, info.frames, info.sampleRate, info.channels, new Date().toISOString());
    return { hash, ...info };
  }
}

async function decodeInWorker(path: string, built?: string): Promise<{ wav: Uint8Array; info: Omit<SoundInfo, 'name'> }> {
  const worker = startWorker('decode', built, { path });
  const message = await new Promise<unknown>((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.once('exit', (code) => reject(new Error(`The decoder ended early (${code}).`)));
  });
  const decoded = decodedSchema.parse(message);
  if (decoded.ok) return decoded;
  if (!decoded.known) throw new Error(decoded.message);
  throw new Problem(422, 'This file cannot be used', `${decoded.message} Nothing in your piece was changed.`);
}
