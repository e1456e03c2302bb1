import { createHash } from 'node:crypto';
import { makeSaltPier, SALT_PIER_ID } from '../src/core/sounds/saltPier';
import { openDatabase, type Db } from './database';
import { PieceStore } from './pieceStore';
import { SoundStore } from './soundStore';

/** Puts the demo piece into a data folder unless it is there already. */
export async function installDemo(db: Db, dataFolder: string): Promise<boolean> {
  const pieces = new PieceStore(db);
  if (pieces.list().some((listing) => listing.id === SALT_PIER_ID)) return false;
  const demo = makeSaltPier((bytes) => createHash('sha256').update(bytes).digest('hex'));
  const sounds = new SoundStore(db, dataFolder);
  for (const sound of demo.sounds) await sounds.keep(sound.bytes, demo.piece.sounds[sound.hash]!);
  pieces.create(demo.piece);
  return true;
}

async function main(): Promise<void> {
  const folder = process.env.ZEPHIRO_DATA ?? 'data';
  const made = await installDemo(openDatabase(folder), folder);
  process.stdout.write(made ? `The demo piece “Salt Pier” was put into ${folder}.\n` : `The demo piece is in ${folder} already.\n`);
}

if (require.main === module) void main();
