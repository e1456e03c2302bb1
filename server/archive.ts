import type { Readable } from 'node:stream';
import * as yazl from 'yazl';
import { ARCHIVE_HISTORY, ARCHIVE_PIECE, archiveSoundName } from './archiveNames';
import type { SoundFiles } from './store/soundFiles';
import type { Store } from './store/storeClient';

/**
 * A piece with its history and every sound of it, as one file that can be read in again anywhere.
 * @throws Problem 404 when there is no such piece, or one of its sounds is missing or damaged
 */
export async function writeArchive(
  id: string,
  store: Store,
  sounds: SoundFiles,
): Promise<{ readonly name: string; readonly zip: Readable }> {
  const { name, piece, history, sounds: hashes } = await store.readForArchive(id);
  for (const hash of hashes) await sounds.read(hash);
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(piece), ARCHIVE_PIECE);
  zip.addBuffer(Buffer.from(history), ARCHIVE_HISTORY);
  for (const hash of hashes) zip.addFile(sounds.pathOf(hash), archiveSoundName(hash), { compress: true });
  zip.end();
  return { name, zip: zip.outputStream as Readable };
}
