import { reasonOf } from '../../src/core/reasonOf';
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import * as yauzl from 'yauzl';
import * as z from 'zod';
import { UnreadableSound } from '../../src/core/formats/audio';
import { hashSchema } from '../../src/core/piece/fields';
import { soundSchema, type SoundInfo } from '../../src/core/piece/soundInfo';
import { ARCHIVE_HISTORY, ARCHIVE_PIECE, archiveSoundName } from '../archiveNames';
import { Problem } from '../http/problem';
import { JsonShape } from '../http/jsonShape';
import { decodeSound, LONGEST_MINUTES, MAX_STORED_CHANNELS } from './decodeSound';

/** Of the piece, and of its history, in bytes. */
export const MAX_ARCHIVE_DOCUMENT_BYTES = 64 * 1024 * 1024;
/** Size limit of one sound: the longest allowed, as floats at the highest common rate. */
const MAX_SOUND_BYTES = LONGEST_MINUTES * 60 * 192_000 * MAX_STORED_CHANNELS * 4;
/** Of all sounds of a piece together, in bytes. */
const MAX_SOUNDS_BYTES = 16 * 1024 * 1024 * 1024;
const KEPT = 'Nothing already stored was changed.';

export interface UnpackedSound {
  readonly hash: string;
  readonly info: SoundInfo;
}

const soundsSchema = z.looseObject({ sounds: z.record(hashSchema, soundSchema) });

/**
 * Unpacks what belongs to an archive of a piece into a folder: `piece.json`, `history.json` (where there is one), and
 * each sound that the piece names, under its hash and in the form that the server keeps. All else in the archive is
 * passed over unread. A sound in another form or with other figures than the piece says is brought to that form, and
 * the documents name what came of it.
 * @throws Problem saying what is wrong with the archive
 */
export async function unpackArchive(from: string, to: string, onProgress: () => void): Promise<UnpackedSound[]> {
  const zip = await openZip(from);
  try {
    const entries = await listEntries(zip);
    let piece = await readDocument(zip, entries.get(ARCHIVE_PIECE), ARCHIVE_PIECE);
    const historyEntry = entries.get(ARCHIVE_HISTORY);
    let history = historyEntry ? await readDocument(zip, historyEntry, ARCHIVE_HISTORY) : null;
    const sounds = soundsSchema.safeParse(parseDocument(piece, ARCHIVE_PIECE)).data?.sounds ?? {};
    checkSizes(Object.keys(sounds).map((hash) => entries.get(archiveSoundName(hash))));
    const unpacked: UnpackedSound[] = [];
    for (const [hash, info] of Object.entries(sounds)) {
      const sound = await unpackSound(zip, entries.get(archiveSoundName(hash)), hash, info, to, onProgress);
      if (sound.hash !== hash) {
        piece = piece.replaceAll(hash, sound.hash);
        history = history?.replaceAll(hash, sound.hash) ?? null;
      }
      unpacked.push(sound);
    }
    await writeFile(join(to, ARCHIVE_PIECE), withSounds(piece, unpacked));
    if (history !== null) await writeFile(join(to, ARCHIVE_HISTORY), history);
    return unpacked;
  } finally {
    zip.close();
  }
}

/** The piece with the figures of its sounds as they were found. */
function withSounds(piece: string, sounds: readonly UnpackedSound[]): string {
  const document = soundsSchema.safeParse(JSON.parse(piece));
  if (!document.success) return piece;
  return JSON.stringify({ ...document.data, sounds: Object.fromEntries(sounds.map(({ hash, info }) => [hash, info])) });
}

function openZip(path: string): Promise<yauzl.ZipFile> {
  return new Promise((resolve, reject) => {
    yauzl.open(path, { lazyEntries: true, autoClose: false }, (error, zip) => {
      if (zip) resolve(zip);
      else
        reject(
          new Problem(422, 'This is no archive', `It is no zip file, or it was cut short (${error?.message}). ${KEPT}`),
        );
    });
  });
}

const WANTED = /^(piece\.json|history\.json|sounds\/[0-9a-f]{64}\.wav)$/;

/** What of a zip file may belong to an archive, by name; of two with one name the first. */
function listEntries(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  const found = new Map<string, yauzl.Entry>();
  return new Promise((resolve, reject) => {
    zip.on('error', (error: Error) => reject(damaged(error.message)));
    zip.on('end', () => resolve(found));
    zip.on('entry', (entry: yauzl.Entry) => {
      if (WANTED.test(entry.fileName) && !found.has(entry.fileName)) found.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}

const damaged = (what: string): Problem =>
  new Problem(422, 'This archive is damaged', `${what}. ${KEPT} Copy the archive again.`);

function checkSizes(entries: readonly (yauzl.Entry | undefined)[]): void {
  const total = entries.reduce((sum, entry) => sum + (entry?.uncompressedSize ?? 0), 0);
  if (total <= MAX_SOUNDS_BYTES) return;
  throw new Problem(413, 'This archive is too large', `Its sounds are more than 16 GB together. ${KEPT}`);
}

/**
 * Counts what comes out of an entry and ends it when that is too much: what the entry says of its size may be a lie.
 */
function limitBytes(max: number, name: string): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > max) done(tooLarge(name));
      else done(null, chunk);
    },
  });
}

function openEntry(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Readable> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (stream) resolve(stream);
      else reject(damaged(`${entry.fileName} cannot be unpacked (${error?.message})`));
    });
  });
}

async function readDocument(zip: yauzl.ZipFile, entry: yauzl.Entry | undefined, name: string): Promise<string> {
  if (!entry) throw new Problem(422, 'This is no archive of a piece', `There is no ${name} in it. ${KEPT}`);
  if (entry.uncompressedSize > MAX_ARCHIVE_DOCUMENT_BYTES) throw tooLarge(name);
  const bytes = Buffer.alloc(entry.uncompressedSize);
  const shape = new JsonShape(name);
  let filled = 0;
  try {
    for await (const part of await openEntry(zip, entry)) {
      const chunk = part as Buffer;
      shape.push(chunk);
      if (filled + chunk.length > bytes.length) throw tooLarge(name);
      filled += chunk.copy(bytes, filled);
    }
  } catch (error) {
    throw error instanceof Problem ? error : damaged(`${name} cannot be unpacked (${reasonOf(error)})`);
  }
  return bytes.toString('utf8', 0, filled);
}

const tooLarge = (name: string): Problem =>
  new Problem(413, 'This archive is too large', `${name} in it unpacks to more than is taken. ${KEPT}`);

function parseDocument(text: string, name: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw damaged(`Its ${name} cannot be read`);
  }
}

async function unpackSound(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry | undefined,
  hash: string,
  info: SoundInfo,
  to: string,
  onProgress: () => void,
): Promise<UnpackedSound> {
  const given = join(to, `${hash}.given`);
  const stored = join(to, `${hash}.stored`);
  try {
    if (!entry) {
      throw new Problem(
        422,
        'This archive is not whole',
        `The sound “${info.name}” is missing in it. ${KEPT} Export the piece again where it comes from.`,
      );
    }
    await extract(zip, entry, hash, info, given, onProgress);
    const decoded = await decodeSound(given, stored, { allowSilence: true, onProgress });
    await rename(stored, join(to, decoded.hash));
    const { frames, sampleRate } = decoded;
    return {
      hash: decoded.hash,
      info: soundSchema.parse({ ...fittingLoop(info, frames), frames, sampleRate, channels: decoded.channels }),
    };
  } catch (error) {
    if (error instanceof UnreadableSound)
      throw damaged(`The sound “${info.name}” cannot be read: ${error.message.replace(/\.$/, '')}`);
    throw error;
  } finally {
    await rm(given, { force: true });
    await rm(stored, { force: true });
  }
}

/** A loop beyond the end of the sound is dropped. */
function fittingLoop({ loop, ...info }: SoundInfo, frames: number): Omit<SoundInfo, 'frames'> {
  return loop && loop.first < loop.last && loop.last < frames ? { ...info, loop } : info;
}

async function extract(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  hash: string,
  info: SoundInfo,
  path: string,
  onProgress: () => void,
): Promise<void> {
  const digest = createHash('sha256');
  const hashing = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      digest.update(chunk);
      onProgress();
      done(null, chunk);
    },
  });
  try {
    await pipeline(
      await openEntry(zip, entry),
      limitBytes(MAX_SOUND_BYTES, `The sound “${info.name}”`),
      hashing,
      createWriteStream(path),
    );
  } catch (error) {
    if (error instanceof Problem || (error instanceof Error && 'code' in error && error.code === 'ENOSPC')) throw error;
    throw damaged(`The sound “${info.name}” cannot be unpacked (${reasonOf(error)})`);
  }
  if (digest.digest('hex') !== hash) throw damaged(`The sound “${info.name}” is not what it was`);
}

/** The content of an unpacked archive, for the store. */
export async function readUnpacked(
  folder: string,
): Promise<{ readonly piece: Uint8Array; readonly history: Uint8Array | null }> {
  return {
    piece: await readFile(join(folder, ARCHIVE_PIECE)),
    history: await readFile(join(folder, ARCHIVE_HISTORY)).catch(() => null),
  };
}
