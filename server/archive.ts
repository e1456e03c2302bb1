import type { Readable } from 'node:stream';
import * as yazl from 'yazl';
import { ARCHIVE_HISTORY, ARCHIVE_PIECE, archiveSoundName } from './archiveNames';
import type { SoundFiles } from './store/soundFiles';
import type { Store } from './store/storeClient';

/** What goes into an archive. A sound is a file on the disk or bytes, a WAV of 32-bit floats in both. */
export interface ArchiveContent {
  readonly piece: Uint8Array;
  readonly history: Uint8Array;
  readonly sounds: readonly { readonly hash: string; readonly wav: string | Uint8Array }[];
}

/** The bytes of an archive, made while they are read. */
export function packArchive({ piece, history, sounds }: ArchiveContent): Readable {
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(piece), ARCHIVE_PIECE);
  zip.addBuffer(Buffer.from(history), ARCHIVE_HISTORY);
  for (const { hash, wav } of sounds) {
    if (typeof wav === 'string') zip.addFile(wav, archiveSoundName(hash), { compress: true });
    else zip.addBuffer(Buffer.from(wav), archiveSoundName(hash), { compress: true });
  }
  zip.end();
  return zip.outputStream as Readable;
}

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
  const files = hashes.map((hash) => ({ hash, wav: sounds.pathOf(hash) }));
  return { name, zip: packArchive({ piece, history, sounds: files }) };
}
