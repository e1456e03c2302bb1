import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { History } from '../../src/core/api/schemas';
import { BadData } from '../../src/core/exchange/chainFile';
import { readPiece } from '../../src/core/piece/versions/readPiece';
import { GLASSHOUSE_RAIN_ID, makeGlasshouseRain } from '../../src/core/recipes/glasshouseRain';
import type { Demo } from '../../src/core/sounds/demo';
import { makeNightFerry, NIGHT_FERRY_ID } from '../../src/core/sounds/nightFerry';
import { makeSaltPier, SALT_PIER_ID } from '../../src/core/sounds/saltPier';
import { readUnpacked, unpackArchive } from '../../server/jobs/unpackArchive';
import { readArchived } from '../../server/store/storeApi';
import type { Folders } from '../arguments';
import { readJson } from '../files';
import { DataFolder } from './dataFolder';
import type { OpenedPiece } from './openedPiece';

const NO_HISTORY: History = { entries: [], cursor: 0 };
const DEMOS: ReadonlyMap<string, (hashOf: (bytes: Uint8Array) => string) => Demo> = new Map([
  [SALT_PIER_ID, makeSaltPier],
  [NIGHT_FERRY_ID, makeNightFerry],
  [GLASSHOUSE_RAIN_ID, makeGlasshouseRain],
]);

const fileIn = (folder: string, hash: string): string | undefined => {
  const path = join(folder, `${hash}.wav`);
  return existsSync(path) ? path : undefined;
};

/**
 * Opens what the command line calls a piece for the time of `act`: a file, an archive, one of the data folder by id or
 * name, or a demo.
 * @throws BadData, UnreadablePiece, or Problem for an archive, when there is none or it cannot be read
 */
export async function withPiece<T>(
  word: string,
  folders: Folders,
  act: (opened: OpenedPiece) => T | Promise<T>,
): Promise<T> {
  if (word.endsWith('.zip')) return withArchive(word, act);
  if (word.endsWith('.json')) return act(pieceFile(word, folders));
  const stored = DataFolder.isThere(folders.data) ? storedPiece(word, folders) : null;
  const demo = DEMOS.get(word);
  const opened = stored ?? (demo && freshDemo(demo));
  if (!opened)
    throw new BadData(
      `There is no piece "${word}" in the data folder ${folders.data}, and it is no .json or .zip file. See: piece list.`,
    );
  return act(opened);
}

function pieceFile(path: string, { data, sounds }: Folders): OpenedPiece {
  const beside = join(dirname(path), 'sounds');
  const folder = sounds ?? (existsSync(beside) ? beside : join(data, 'sounds'));
  return { piece: readPiece(readJson(path)), history: NO_HISTORY, wavOf: (hash) => fileIn(folder, hash) };
}

async function withArchive<T>(path: string, act: (opened: OpenedPiece) => T | Promise<T>): Promise<T> {
  if (!existsSync(path)) throw new BadData(`${path} cannot be read: there is no such file.`);
  const folder = mkdtempSync(join(tmpdir(), 'zephiro-archive-'));
  try {
    await unpackArchive(path, folder, () => undefined);
    const { piece, history } = await readUnpacked(folder);
    const wavOf = (hash: string): string | undefined => {
      const file = join(folder, hash);
      return existsSync(file) ? file : undefined;
    };
    return await act({ ...readArchived(piece, history), wavOf });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function storedPiece(word: string, { data, sounds }: Folders): OpenedPiece | null {
  return DataFolder.use(data, ({ pieces, folder }) => {
    const list = pieces.list();
    const named = list.filter(({ name }) => name.toLowerCase() === word.toLowerCase());
    const found = list.find(({ id }) => id === word) ?? named[0];
    if (!found) return null;
    if (found.id !== word && named.length > 1)
      throw new BadData(
        `${named.length} pieces are called "${word}": give one of the ids ${named.map(({ id }) => id).join(', ')}.`,
      );
    const { piece, history, revision } = pieces.read(found.id);
    return { piece, history, revision, wavOf: (hash) => fileIn(sounds ?? join(folder, 'sounds'), hash) };
  });
}

function freshDemo(make: (hashOf: (bytes: Uint8Array) => string) => Demo): OpenedPiece {
  const { piece, sounds } = make((bytes) => createHash('sha256').update(bytes).digest('hex'));
  const byHash = new Map(sounds.map(({ hash, bytes }) => [hash, bytes]));
  return { piece, history: NO_HISTORY, wavOf: (hash) => byHash.get(hash) };
}
