import Database from 'better-sqlite3';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { StorageUse } from '../src/core/api/schemas';
import { floatWavBytes } from '../src/core/formats/floatWav';
import { emptyPiece } from '../src/core/piece/piece';
import { closeServers, removeFolders, startServer, toneWav, type TestServer } from './testing';

afterEach(closeServers);
afterAll(removeFolders);

async function upload({ url }: TestServer, frames: number): Promise<string> {
  const answer = await fetch(`${url}/api/sounds?name=tone`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: Uint8Array.from(toneWav(frames)),
  });
  return ((await answer.json()) as { hash: string }).hash;
}
const use = async ({ url }: TestServer): Promise<StorageUse> =>
  (await (await fetch(`${url}/api/storage`)).json()) as StorageUse;
const clear = async ({ url }: TestServer): Promise<unknown> =>
  (await fetch(`${url}/api/storage/unused`, { method: 'DELETE' })).json();

/** As if all sounds had come `days` ago. */
function age({ folder }: TestServer, days: number): void {
  const db = new Database(join(folder, 'zephiro.sqlite'));
  db.prepare('UPDATE sounds SET added_at = ?').run(new Date(Date.now() - days * 86_400_000).toISOString());
  db.close();
}

test('only sounds that nothing names are cleared, and only after a week', async () => {
  const server = await startServer();
  const [inPiece, inHistory, nowhere] = [
    await upload(server, 4800),
    await upload(server, 4801),
    await upload(server, 4802),
  ];
  const info = { name: 'tone', frames: 4800, sampleRate: 48_000, channels: 1 as const };
  await server.services.store.createPiece(
    new TextEncoder().encode(JSON.stringify({ ...emptyPiece('p', 'Piece'), sounds: { [inPiece]: info } })),
  );
  const entry = {
    id: 'e',
    at: '',
    edit: 'removePrint',
    label: 'Remove a print',
    forward: [],
    backward: [{ op: 'add', path: ['sounds', inHistory], value: info }],
  };
  const save = {
    saveId: 's',
    piece: { ...emptyPiece('p', 'Piece'), sounds: { [inPiece]: info } },
    history: { from: 0, entries: [entry], cursor: 1 },
  };
  await server.services.store.savePiece('p', 1, new TextEncoder().encode(JSON.stringify(save)));
  const bytes = [4800, 4801, 4802].reduce((sum, frames) => sum + floatWavBytes(frames, 1), 0);
  expect(await use(server)).toEqual({
    sounds: { count: 3, bytes },
    unused: { count: 0, bytes: 0 },
    freeBytes: expect.any(Number) as number,
  });
  expect(await clear(server)).toEqual({ count: 0, bytes: 0 });
  age(server, 8);
  const unused = { count: 1, bytes: floatWavBytes(4802, 1) };
  expect((await use(server)).unused).toEqual(unused);
  expect(await clear(server)).toEqual(unused);
  const isThere = (hash: string): boolean => existsSync(join(server.folder, 'sounds', `${hash}.wav`));
  expect([inPiece, inHistory, nowhere].map(isThere)).toEqual([true, true, false]);
  expect((await use(server)).sounds.count).toBe(2);
});

test('what is brought in again counts as new', async () => {
  const server = await startServer();
  await upload(server, 4800);
  age(server, 30);
  expect((await use(server)).unused.count).toBe(1);
  await upload(server, 4800);
  expect((await use(server)).unused.count).toBe(0);
});
