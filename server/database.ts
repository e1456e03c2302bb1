import Database from 'better-sqlite3';
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

export type Db = Database.Database;

const MIGRATIONS = join(__dirname, 'migrations');

/** Opens the database of a data folder and brings it to the newest form, each migration in a transaction of its own. */
export function openDatabase(folder: string): Db {
  mkdirSync(folder, { recursive: true });
  const db = new Database(join(folder, 'zephiro.sqlite'));
  db.pragma('journal_mode = WAL');
  db.pragma('foreign_keys = ON');
  db.pragma('synchronous = FULL');
  migrate(db);
  return db;
}

function migrate(db: Db): void {
  const files = readdirSync(MIGRATIONS).filter((name) => name.endsWith('.sql')).sort();
  const done = db.pragma('user_version', { simple: true }) as number;
  files.slice(done).forEach((name, i) => {
    db.transaction(() => {
      db.exec(readFileSync(join(MIGRATIONS, name), 'utf8'));
      db.pragma(`user_version = ${done + i + 1}`);
    })();
  });
}
