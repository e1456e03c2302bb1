/**
 * Gives every reader of the server so many damaged files, and the whole of it so many bombs, and tells the most memory
 * that it took. npm run fuzz:files [-- FILES [BOMBS [SEED]]] Ends with 1 when any answer was none that a damaged file
 * should have.
 */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { makeRandom } from '../src/core/dsp/random';
import { emptyPiece } from '../src/core/piece/piece';
import { archiveBombs, zipOf } from '../server/hostile/bombs';
import { damaged } from '../server/hostile/damage';
import { soundBombs, soundFiles } from '../server/hostile/files';
import { processMemories } from '../server/hostile/processMemory';
import { rawRequest, removeFolders, startServer } from '../server/testing';

const MEGABYTE = 1 << 20;
const AT_ONCE = 4;
/** Timeout for a decoder that hangs on a damaged file. */
const STALL_MS = 500;

type Kind = readonly [name: string, path: string, bytes: Uint8Array];

const SOUNDS = '/api/sounds?name=n';
const ARCHIVES = '/api/archives';

/** A file for each reader, and where it is sent. */
async function kinds(): Promise<Kind[]> {
  const text = (value: unknown): Buffer => Buffer.from(JSON.stringify(value));
  const archive = await zipOf({
    'piece.json': text(emptyPiece('p', 'Piece')),
    'history.json': text({ entries: [], cursor: 0 }),
  });
  return [...soundFiles().map(([name, bytes]): Kind => [name, SOUNDS, bytes]), ['archive', ARCHIVES, archive]];
}

async function bombs(): Promise<Kind[]> {
  const archives = Object.entries(await archiveBombs(emptyPiece('bomb', 'Bomb')));
  return [
    ...soundBombs().map(([name, bytes]): Kind => [name, SOUNDS, bytes]),
    ...archives.map(([name, bytes]): Kind => [name, ARCHIVES, bytes]),
  ];
}

async function main(): Promise<void> {
  const [files = 1000, bombCount = 20, seed = Date.now() % 1_000_000_000] = process.argv.slice(2).map(Number);
  const server = await startServer({ jobStallMs: STALL_MS });
  const statuses = new Map<string, number>();
  let most: number[] = [0];
  const sum = (memories: readonly number[]): number => memories.reduce((all, bytes) => all + bytes, 0);
  const timer = setInterval(() => {
    const now = processMemories(process.pid);
    if (sum(now) > sum(most)) most = now;
  }, 100);
  const send = async (name: string, path: string, body: Uint8Array): Promise<void> => {
    const { status } = await rawRequest(server.port, path, { method: 'POST', body });
    const key = `${name}: ${status}`;
    statuses.set(key, (statuses.get(key) ?? 0) + 1);
  };
  const all = async (count: number, one: (i: number) => Promise<void>): Promise<void> => {
    let next = 0;
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        while (next < count) {
          next += 1;
          await one(next - 1);
        }
      }),
    );
  };
  const begun = performance.now();
  for (const [name, path, bytes] of await kinds()) {
    await all(files, (i) => send(name, path, damaged(bytes, makeRandom(seed + i))));
    process.stdout.write(`${files} of ${name}: ${Math.round((performance.now() - begun) / 1000)} s so far\n`);
  }
  const made = await bombs();
  await all(bombCount, (i) => send('bomb', made[i % made.length]![1], made[i % made.length]![2]));
  clearInterval(timer);
  for (const [what, count] of [...statuses].sort()) process.stdout.write(`${String(count).padStart(7)} ${what}\n`);
  const left = readdirSync(join(server.folder, 'arriving'));
  const each = most.map((bytes) => Math.round(bytes / MEGABYTE)).join(' + ');
  process.stdout.write(
    `seed ${seed}; most memory, server and its processes: ${each} MB; left behind: ${left.length}\n`,
  );
  const wrong = [...statuses.keys()].filter((key) => !/: (201|4\d\d)$/.test(key));
  await server.close();
  removeFolders();
  process.exit(wrong.length === 0 && left.length === 0 ? 0 : 1);
}

void main();
