import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { SoundInfo } from '../../src/core/piece/soundInfo';
import { makeNightFerry } from '../../src/core/sounds/nightFerry';
import { ARCHIVE_PIECE } from '../archiveNames';

/**
 * Synthesises the demo piece "Night Ferry" into a folder, as an unpacked archive is laid out.
 * @param onProgress told after each sound
 */
export async function writeNightFerry(
  folder: string,
  onProgress: () => void,
): Promise<{ readonly hash: string; readonly info: SoundInfo }[]> {
  const { piece, sounds } = makeNightFerry((bytes) => {
    onProgress();
    return createHash('sha256').update(bytes).digest('hex');
  });
  for (const { hash, bytes } of sounds) await writeFile(join(folder, hash), bytes);
  await writeFile(join(folder, ARCHIVE_PIECE), JSON.stringify(piece));
  return sounds.map(({ hash }) => ({ hash, info: piece.sounds[hash]! }));
}
