import Database from 'better-sqlite3';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import * as z from 'zod';

const holderSchema = z.object({ pid: z.number(), host: z.string(), address: z.string(), since: z.string() });

/** Another server works with this folder. */
export class FolderTaken extends Error {}

/**
 * Holds a data folder for one server. The lock is an open transaction on a small SQLite file of its own, so that the
 * operating system lets go of it when the process ends, however it ends.
 * @param address of this server, reported to whoever finds the folder locked
 * @returns how to let go of it
 * @throws FolderTaken saying who has it
 */
export function lockFolder(folder: string, address: string): () => void {
  mkdirSync(folder, { recursive: true });
  const holder = join(folder, 'server.json');
  const lock = new Database(join(folder, 'server.lock'), { timeout: 0 });
  try {
    lock.pragma('journal_mode = MEMORY');
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if (error instanceof Database.SqliteError && error.code.startsWith('SQLITE_BUSY')) {
      throw new FolderTaken(`${folder} is in use by ${describe(holder)}.`);
    }
    throw error;
  }
  writeFileSync(
    holder,
    JSON.stringify({ pid: process.pid, host: hostname(), address, since: new Date().toISOString() }),
  );
  return () => {
    rmSync(holder, { force: true });
    lock.close();
  };
}

function describe(holder: string): string {
  try {
    const { pid, host, address, since } = holderSchema.parse(JSON.parse(readFileSync(holder, 'utf8')));
    return `the Zephiro at ${address} (process ${pid} on ${host}, since ${since})`;
  } catch {
    return 'another Zephiro that is just starting';
  }
}
