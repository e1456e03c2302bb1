import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { applyEdit, type Edit, type HistoryEntry } from '../../src/core/piece/edit';
import { BadData } from '../../src/core/exchange/chainFile';
import { writeWav } from '../../src/core/formats/writeWav';
import type { SoundData } from '../../src/core/dsp/soundData';
import { packArchive } from '../../server/archive';
import { UsageError, type Folders } from '../arguments';
import { reasonOf } from '../../src/core/reasonOf';
import { writeWhole } from '../files';
import { DataFolder } from './dataFolder';
import { wavBytes, type OpenedPiece } from './openedPiece';

/** A sound that a command made, ready to be stored. */
export interface MadeSound {
  readonly hash: string;
  readonly wav: Uint8Array;
}

export function madeSound(channels: SoundData, sampleRate: number): MadeSound {
  const wav = writeWav({ sampleRate, channels: [...channels] }, '32f');
  return { hash: createHash('sha256').update(wav).digest('hex'), wav };
}

/** An edit of an opened piece, with its entry in the history. @throws EditRefused */
export function edited<A>(opened: OpenedPiece, edit: Edit<A>, args: A, made: readonly MadeSound[] = []): OpenedPiece {
  const { piece, label, forward, backward } = applyEdit(opened.piece, edit, args);
  const entry: HistoryEntry = {
    id: randomUUID(),
    at: new Date().toISOString(),
    edit: edit.name,
    label: label.slice(0, 300),
    forward,
    backward,
  };
  const { entries, cursor } = opened.history;
  const bytes = new Map(made.map(({ hash, wav }) => [hash, wav]));
  return {
    ...opened,
    piece,
    history: { entries: [...entries.slice(0, cursor), entry], cursor: cursor + 1 },
    wavOf: (hash) => bytes.get(hash) ?? opened.wavOf(hash),
  };
}

const json = (value: unknown): Uint8Array => Buffer.from(JSON.stringify(value));

/**
 * Writes a piece to a file or an archive, or saves it in the data folder that it came from.
 * @param path null to save it where it came from
 * @throws UsageError without a path for a piece that is not of the data folder; BadData for what cannot be written
 */
export async function keepPiece(opened: OpenedPiece, path: string | null, { data }: Folders): Promise<void> {
  if (path === null) saveInPlace(opened, data);
  else if (path.endsWith('.zip')) await writeZip(opened, path);
  else if (path.endsWith('.json')) writePieceFile(opened, path);
  else throw new UsageError(`${path} has to end with .json or .zip.`);
}

function soundsOf({ piece, wavOf }: OpenedPiece): { hash: string; wav: string | Uint8Array }[] {
  return Object.entries(piece.sounds).map(([hash, { name }]) => {
    const wav = wavOf(hash);
    if (wav === undefined) throw new BadData(`The sound "${name}" of the piece is missing; nothing was written.`);
    return { hash, wav };
  });
}

function writePieceFile(opened: OpenedPiece, path: string): void {
  const folder = join(dirname(path), 'sounds');
  for (const { hash, wav } of soundsOf(opened)) {
    const to = join(folder, `${hash}.wav`);
    if (existsSync(to)) continue;
    mkdirSync(folder, { recursive: true });
    writeWhole(to, wavBytes(wav));
  }
  writeWhole(path, json(opened.piece));
}

async function writeZip(opened: OpenedPiece, path: string): Promise<void> {
  const part = `${path}.${process.pid}.part`;
  const zip = packArchive({ piece: json(opened.piece), history: json(opened.history), sounds: soundsOf(opened) });
  try {
    await pipeline(zip, createWriteStream(part, { flush: true }));
    renameSync(part, path);
  } catch (error) {
    rmSync(part, { force: true });
    throw new BadData(`${path} cannot be written: ${reasonOf(error)}. What was there before is unchanged.`);
  }
}

/** Saves as a window of the client does: a save that came between is not overwritten. */
function saveInPlace({ piece, history, revision, wavOf }: OpenedPiece, folder: string): void {
  if (revision === undefined)
    throw new UsageError('OUT is missing: only a piece of the data folder can be changed in its place.');
  DataFolder.use(folder, (data) => {
    for (const [hash, info] of Object.entries(piece.sounds)) {
      const wav = wavOf(hash);
      if (wav instanceof Uint8Array) data.addSound(hash, info, wav);
    }
    const from = history.cursor - 1;
    data.pieces.save(piece.id, revision, {
      saveId: randomUUID(),
      piece,
      history: { from, entries: history.entries.slice(from), cursor: history.cursor },
    });
  });
}
