import { createHash } from 'node:crypto';
import { makeSaltPier, SALT_PIER_ID } from '../src/core/sounds/saltPier';
import type { Services } from './services';

/** Stores the demo piece unless it is there already. */
export async function installDemo({ store, sounds }: Pick<Services, 'store' | 'sounds'>): Promise<void> {
  if (await store.hasPiece(SALT_PIER_ID)) return;
  const demo = makeSaltPier((bytes) => createHash('sha256').update(bytes).digest('hex'));
  for (const sound of demo.sounds) await sounds.put(sound.bytes, sound.hash, demo.piece.sounds[sound.hash]!);
  await store.installPiece(demo.piece);
}
