import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { MADE_DEMOS, type MadeDemo } from './jobs/jobs';
import { installMadeDemo } from './demo';
import { closeServers, removeFolders, startServer, until } from './testing';

afterEach(closeServers);
afterAll(removeFolders);

const arriving = (folder: string): string[] => readdirSync(join(folder, 'arriving'));

test.each<MadeDemo>([...MADE_DEMOS])('%s is made in another process, whole, and once', async (demo) => {
  const { services, url, folder } = await startServer();
  const { signal } = new AbortController();
  await installMadeDemo(services, demo, signal);
  const stored = (await (await fetch(`${url}/api/pieces/${demo}`)).json()) as {
    piece: { sounds: Record<string, unknown> };
    revision: number;
  };
  const hashes = Object.keys(stored.piece.sounds);
  expect(hashes.length).toBeGreaterThan(10);
  for (const hash of hashes) expect(await services.sounds.isIntact(hash, signal)).toBe(true);
  await installMadeDemo(services, demo, signal);
  expect((await services.store.listPieces()).map(({ id, revision }) => [id, revision])).toEqual([
    [demo, stored.revision],
  ]);
  expect(arriving(folder)).toEqual([]);
});

test('a server that ends meanwhile leaves nothing of it', async () => {
  const { services, folder } = await startServer();
  const ended = new AbortController();
  const installing = installMadeDemo(services, 'night-ferry', ended.signal);
  await until(() => arriving(folder).length > 0);
  ended.abort();
  await expect(installing).rejects.toThrow();
  expect(arriving(folder)).toEqual([]);
  expect(await services.store.listPieces()).toEqual([]);
});
