import { randomUUID } from 'node:crypto';
import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { open, rename, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { floatWavBytes } from '../../src/core/formats/floatWav';
import type { SoundInfo } from '../../src/core/piece/soundInfo';
import { insideFolder } from '../http/insideFolder';
import { Problem } from '../http/problem';
import { hashedSchema } from '../jobs/jobs';
import type { JobPool } from '../jobs/jobPool';
import type { SoundAmount, StorageUse, StoredSound } from '../../src/core/api/schemas';
import type { Store } from './storeClient';

/** Writes a file and makes sure that it is on the disk. */
export async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
  const file = await open(path, 'w');
  try {
    await file.writeFile(bytes);
    await file.sync();
  } finally {
    await file.close();
  }
}

/**
 * Makes sure that the names in a folder are on the disk: a file that was renamed may lose its name with the power
 * otherwise.
 */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** A window may hold work that it has not sent yet, which names sounds that no stored document does. */
const KEPT_UNUSED_MS = 7 * 24 * 3600 * 1000;
const oldEnough = (): string => new Date(Date.now() - KEPT_UNUSED_MS).toISOString();

const amountOf = (sounds: readonly StoredSound[]): SoundAmount => ({
  count: sounds.length,
  bytes: sounds.reduce((sum, { frames, channels }) => sum + floatWavBytes(frames, channels), 0),
});

/** Sound files on disk under the SHA-256 of their bytes, always 32-bit float WAV at their own rate. */
export class SoundFiles {
  readonly folder: string;
  private readonly arriving: string;
  private turn: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly store: Store,
    private readonly jobs: JobPool,
    dataFolder: string,
  ) {
    this.folder = join(dataFolder, 'sounds');
    this.arriving = join(dataFolder, 'arriving');
    mkdirSync(this.folder, { recursive: true });
    mkdirSync(this.arriving, { recursive: true });
    for (const left of readdirSync(this.arriving)) rmSync(join(this.arriving, left), { force: true, recursive: true });
  }

  /** A path for something that is on its way in, beside where it will be. */
  newArrival(): string {
    return join(this.arriving, randomUUID());
  }

  nameOf = (hash: string): string => `${hash}.wav`;

  pathOf(hash: string): string {
    return insideFolder(this.folder, this.nameOf(hash));
  }

  /**
   * What is known of a stored sound whose file is there in its full length.
   * @throws Problem 404 when it is not there, or is damaged
   */
  async read(hash: string): Promise<StoredSound> {
    const sound = await this.store.findSound(hash);
    const bytes = await stat(this.pathOf(hash)).then(
      (file) => file.size,
      () => null,
    );
    if (!sound || bytes === null) throw new Problem(404, 'There is no such sound', 'It is not on this server.');
    if (bytes !== floatWavBytes(sound.frames, sound.channels)) throw damaged(sound.name);
    return sound;
  }

  /**
   * Reads all of a stored sound's file.
   * @returns whether its bytes have the hash in its name
   */
  async isIntact(hash: string, signal: AbortSignal): Promise<boolean> {
    await this.read(hash);
    const found = await this.jobs.run({ kind: 'hash', path: this.pathOf(hash) }, hashedSchema, signal);
    return found.hash === hash;
  }

  /**
   * Takes a finished file of the stored form, in place of what may be there under its name: that heals a damaged one.
   */
  adopt(path: string, hash: string, info: SoundInfo): Promise<StoredSound> {
    return this.inTurn(() => this.adoptNow(path, hash, info));
  }

  private async adoptNow(path: string, hash: string, info: SoundInfo): Promise<StoredSound> {
    await rename(path, this.pathOf(hash));
    await syncFolder(this.folder);
    const sound = { ...info, hash };
    await this.store.addSound(sound);
    return sound;
  }

  /** What the sounds take, and what of it nothing uses. */
  async use(): Promise<StorageUse> {
    const [all, unused, disk] = await Promise.all([
      this.store.listSounds(),
      this.store.unusedSounds(oldEnough()),
      statfs(this.folder),
    ]);
    return { sounds: amountOf(all), unused: amountOf(unused), freeBytes: disk.bavail * disk.bsize };
  }

  /** Removes sounds that nothing uses. A sound that is brought in meanwhile waits, and is there afterwards. */
  removeUnused(): Promise<SoundAmount> {
    return this.inTurn(async () => {
      const unused = await this.store.unusedSounds(oldEnough());
      for (const { hash } of unused) {
        await this.store.removeSound(hash);
        await rm(this.pathOf(hash), { force: true });
      }
      return amountOf(unused);
    });
  }

  /** One change of the folder after another. */
  private inTurn<T>(act: () => Promise<T>): Promise<T> {
    const done = this.turn.then(act);
    this.turn = done.catch(() => undefined);
    return done;
  }

  /** Takes a finished WAV of the server's own making. */
  async put(wav: Uint8Array, hash: string, info: SoundInfo): Promise<StoredSound> {
    const path = this.newArrival();
    try {
      await writeWhole(path, wav);
      return await this.adopt(path, hash, info);
    } finally {
      await rm(path, { force: true });
    }
  }
}

const damaged = (name: string): Problem =>
  new Problem(
    404,
    'This sound is damaged',
    `The file of “${name}” on this server is not whole. Bring the same file in again: that mends it.`,
  );
