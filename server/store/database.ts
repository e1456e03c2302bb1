import Database from 'better-sqlite3';
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

export type Db = Database.Database;

/** A database that this program cannot work with; the message says why and what to do. */
export class UnusableDatabase extends Error {}

/**
 * Opens the database of a data folder and brings it to the newest form, each migration in a transaction of its own.
 * @param migrations folder of the SQL files, in order
 * @throws UnusableDatabase when it is damaged, or was written by a newer program
 */
export function openDatabase(folder: string, migrations: string): Db {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, 'zephiro.sqlite');
  const db = new Database(path);
  try {
    db.pragma('journal_mode = WAL');
    db.pragma('foreign_keys = ON');
    db.pragma('synchronous = FULL');
    migrate(db, path, migrations);
    return db;
  } catch (error) {
    db.close();
    if (
      error instanceof Database.SqliteError &&
      ['SQLITE_NOTADB', 'SQLITE_CORRUPT'].some((code) => error.code.startsWith(code))
    ) {
      throw new UnusableDatabase(
        `${path} is damaged or is no database (${error.message}). Put a copy of it in its place; it was left as it is.`,
      );
    }
    throw error;
  }
}

function migrate(db: Db, path: string, folder: string): void {
  const files = readdirSync(folder)
    .filter((name) => name.endsWith('.sql'))
    .sort();
  const done = db.pragma('user_version', { simple: true }) as number;
  if (done > files.length) {
    throw new UnusableDatabase(
      `${path} was written by a newer Zephiro (form ${done}; this one knows ${files.length}). Start that one; nothing was changed.`,
    );
  }
  files.slice(done).forEach((name, i) => {
    db.transaction(() => {
      db.exec(readFileSync(join(folder, name), 'utf8'));
      db.pragma(`user_version = ${done + i + 1}`);
    })();
  });
}
