import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { BadData } from '../../src/core/exchange/chainFile';
import type { SoundInfo } from '../../src/core/piece/soundInfo';
import { MIGRATIONS } from '../../server/services';
import { openDatabase } from '../../server/store/database';
import { PieceStore } from '../../server/store/pieceStore';
import { SoundRows } from '../../server/store/soundRows';
import type { StoredWav } from './openedPiece';

/** The data folder of a server. Several programs may have it open: SQLite keeps them apart. */
export class DataFolder {
  readonly pieces: PieceStore;
  private readonly rows: SoundRows;
  private readonly close: () => void;

  private constructor(readonly folder: string) {
    const db = openDatabase(folder, MIGRATIONS);
    this.pieces = new PieceStore(db);
    this.rows = new SoundRows(db);
    this.close = () => void db.close();
  }

  static isThere = (folder: string): boolean => existsSync(join(folder, 'zephiro.sqlite'));

  /** Opens it for the time of `act`. @param make true to make one that is not there @throws BadData where it is not */
  static use<T>(folder: string, act: (data: DataFolder) => T, make = false): T {
    if (!make && !DataFolder.isThere(folder))
      throw new BadData(`There are no pieces in ${folder}. Give the data folder of the server with --data.`);
    const data = new DataFolder(folder);
    try {
      return act(data);
    } finally {
      data.close();
    }
  }

  /** Stores a sound under its hash, atomically. */
  addSound(hash: string, info: SoundInfo, wav: StoredWav): void {
    const sounds = join(this.folder, 'sounds');
    mkdirSync(sounds, { recursive: true });
    const to = join(sounds, `${hash}.wav`);
    if (!existsSync(to)) {
      const part = join(sounds, `${randomUUID()}.part`);
      try {
        if (typeof wav === 'string') copyFileSync(wav, part);
        else writeFileSync(part, wav, { flush: true });
        renameSync(part, to);
      } finally {
        rmSync(part, { force: true });
      }
    }
    this.rows.add({ ...info, hash });
  }
}
