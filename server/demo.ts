import { createHash } from 'node:crypto';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { makeSaltPier, SALT_PIER_ID } from '../src/core/sounds/saltPier';
import { unpackedSchema, type MadeDemo } from './jobs/jobs';
import { readUnpacked } from './jobs/unpackArchive';
import type { Services } from './services';

/** Stores the demo piece unless it is there already. */
export async function installDemo({ store, sounds }: Pick<Services, 'store' | 'sounds'>): Promise<void> {
  if (await store.hasPiece(SALT_PIER_ID)) return;
  const demo = makeSaltPier((bytes) => createHash('sha256').update(bytes).digest('hex'));
  for (const sound of demo.sounds) await sounds.put(sound.bytes, sound.hash, demo.piece.sounds[sound.hash]!);
  await store.installPiece(demo.piece);
}

/**
 * Makes a demo piece in a process of its own and stores it, unless it is there already. It takes some seconds, in which
 * the server works as ever.
 */
export async function installMadeDemo(
  { store, sounds, demoJobs }: Services,
  demo: MadeDemo,
  signal: AbortSignal,
): Promise<void> {
  if (await store.hasPiece(demo)) return;
  const folder = `${sounds.newArrival()}.demo`;
  try {
    await mkdir(folder);
    const made = await demoJobs.run({ kind: 'demo', demo, to: folder }, unpackedSchema, signal);
    const { piece } = await readUnpacked(folder);
    for (const { hash, info } of made.sounds) await sounds.adopt(join(folder, hash), hash, info);
    await store.createPiece(new Uint8Array(piece));
  } finally {
    await rm(folder, { force: true, recursive: true });
  }
}
