import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { SoundInfo } from '../../src/core/piece/soundInfo';
import { makeGlasshouseRain } from '../../src/core/recipes/glasshouseRain';
import type { Demo } from '../../src/core/sounds/demo';
import { makeNightFerry } from '../../src/core/sounds/nightFerry';
import { ARCHIVE_PIECE } from '../archiveNames';
import type { MadeDemo } from './jobs';

const DEMOS: Readonly<Record<MadeDemo, (hashOf: (bytes: Uint8Array) => string) => Demo>> = {
  'night-ferry': makeNightFerry,
  'glasshouse-rain': makeGlasshouseRain,
};

/**
 * Makes a demo piece into a folder, as an unpacked archive is laid out.
 * @param onProgress told after each sound
 */
export async function writeDemo(
  demo: MadeDemo,
  folder: string,
  onProgress: () => void,
): Promise<{ readonly hash: string; readonly info: SoundInfo }[]> {
  const { piece, sounds } = DEMOS[demo]((bytes) => {
    onProgress();
    // Engines that have rendered hold memory that only a collection gives back.
    globalThis.gc?.();
    return createHash('sha256').update(bytes).digest('hex');
  });
  for (const { hash, bytes } of sounds) await writeFile(join(folder, hash), bytes);
  await writeFile(join(folder, ARCHIVE_PIECE), JSON.stringify(piece));
  return sounds.map(({ hash }) => ({ hash, info: piece.sounds[hash]! }));
}
