import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import * as yauzl from 'yauzl';
import * as yazl from 'yazl';
import * as z from 'zod';
import { UnreadableSound } from '../src/core/formats/audio';
import { readWav } from '../src/core/formats/readWav';
import { historyEntrySchema } from '../src/core/piece/edit';
import { readPiece, UnreadablePiece } from '../src/core/piece/versions';
import type { PieceStore } from './pieceStore';
import { Problem } from './problem';
import type { SoundStore } from './soundStore';

const PIECE = 'piece.json';
const HISTORY = 'history.json';
const SOUND = /^sounds\/([0-9a-f]{64})\.wav$/;
const LARGEST_DOCUMENT = 256 * 1024 * 1024;
const LARGEST_SOUND = 2 * 1024 * 1024 * 1024;
const historySchema = z.strictObject({ entries: z.array(historyEntrySchema), cursor: z.number().int().min(0) });

const KEPT = 'Nothing already stored was changed.';

/** A piece with its history and every sound of it, as one file that can be read in again anywhere. */
export function writeArchive(id: string, pieces: PieceStore, sounds: SoundStore): Readable {
  const { piece, history } = pieces.read(id);
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(piece)), PIECE);
  zip.addBuffer(Buffer.from(JSON.stringify(history)), HISTORY);
  for (const hash of Object.keys(piece.sounds)) {
    sounds.read(hash);
    zip.addFile(sounds.pathOf(hash), `sounds/${hash}.wav`, { compress: true });
  }
  zip.end();
  return zip.outputStream as Readable;
}

/** Reads an archive in: all of it is looked at before anything is kept. A piece whose id is taken comes in as another one. @returns the id of the piece */
export async function readArchive(body: Readable, folder: string, pieces: PieceStore, sounds: SoundStore): Promise<string> {
  const path = join(folder, `${randomUUID()}.zip`);
  try {
    await pipeline(body, createWriteStream(path));
    const entries = await entriesOf(path);
    const piece = readPiece(json(entries.get(PIECE), PIECE));
    const history = historySchema.parse(entries.has(HISTORY) ? json(entries.get(HISTORY), HISTORY) : { entries: [], cursor: 0 });
    for (const [hash, info] of Object.entries(piece.sounds)) {
      const bytes = entries.get(`sounds/${hash}.wav`);
      if (!bytes) throw new Problem(422, 'This archive is not whole', `The sound “${info.name}” is missing in it. ${KEPT} Export the piece again where it comes from.`);
      if (createHash('sha256').update(bytes).digest('hex') !== hash) throw new Problem(422, 'This archive is damaged', `The sound “${info.name}” is not what it was. ${KEPT} Copy the archive again.`);
      readWav(bytes);
    }
    for (const [hash, info] of Object.entries(piece.sounds)) await sounds.keep(entries.get(`sounds/${hash}.wav`)!, info);
    const taken = pieces.list().some(({ id }) => id === piece.id);
    const own = taken ? { ...piece, id: randomUUID(), name: `${piece.name} (from an archive)`.slice(0, 120) } : piece;
    const revision = pieces.create(own);
    pieces.save(own.id, revision, { saveId: randomUUID(), piece: own, history: { from: 0, ...history } });
    return own.id;
  } catch (error) {
    throw understood(error);
  } finally {
    await rm(path, { force: true });
  }
}

function understood(error: unknown): unknown {
  if (error instanceof UnreadablePiece || error instanceof UnreadableSound) return new Problem(422, 'This archive cannot be used', `${error.message} ${KEPT}`);
  return error;
}

function json(bytes: Buffer | undefined, name: string): unknown {
  if (!bytes) throw new Problem(422, 'This is no archive of a piece', `There is no ${name} in it. ${KEPT}`);
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new Problem(422, 'This archive is damaged', `Its ${name} cannot be read. ${KEPT}`);
  }
}

/** What of a zip file belongs to an archive, by name; anything else in it is passed over. */
async function entriesOf(path: string): Promise<Map<string, Buffer>> {
  const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.open(path, { lazyEntries: true }, (error, opened) => (opened ? resolve(opened) : reject(new Problem(422, 'This is no archive', `It is no zip file, or it was cut short (${error?.message ?? 'unknown reason'}). ${KEPT}`)))));
  const found = new Map<string, Buffer>();
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('error', (error: Error) => reject(new Problem(422, 'This archive is damaged', `${error.message}. ${KEPT}`)));
      zip.on('end', resolve);
      zip.on('entry', (entry: yauzl.Entry) => {
        const most = SOUND.test(entry.fileName) ? LARGEST_SOUND : entry.fileName === PIECE || entry.fileName === HISTORY ? LARGEST_DOCUMENT : 0;
        if (most === 0 || entry.uncompressedSize > most) {
          zip.readEntry();
          return;
        }
        read(zip, entry).then((bytes) => {
          found.set(entry.fileName, bytes);
          zip.readEntry();
        }, (error: Error) => reject(new Problem(422, 'This archive is damaged', `${entry.fileName} cannot be unpacked (${error.message}). ${KEPT} Copy the archive again.`)));
      });
      zip.readEntry();
    });
  } finally {
    zip.close();
  }
  return found;
}

async function read(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Buffer> {
  const stream = await new Promise<Readable>((resolve, reject) => zip.openReadStream(entry, (error, opened) => (opened ? resolve(opened) : reject(error ?? new Error('unreadable')))));
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
