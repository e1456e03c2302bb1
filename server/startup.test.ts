import Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer as startProgram } from '../scripts/startServer';
import { emptyPiece, type Piece } from '../src/core/piece/piece';
import { ask, closeServers, createPiece, freePort, newFolder, removeFolders, savePiece, startServer } from './testing';

afterEach(closeServers);
afterAll(removeFolders);

const piece = (name = 'Piece'): Piece => ({ ...emptyPiece('p1', name) });
const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

describe('a data folder that cannot be used is said in one line, and nothing in it is changed', () => {
  /** What a server that was started on it said, and how it ended. */
  const started = (
    folder: string,
    env: Record<string, string> = {},
  ): { readonly status: number | null; readonly said: string } => {
    const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'server/index.ts'], {
      cwd: join(__dirname, '..'),
      env: { ...process.env, ZEPHIRO_DATA: folder, ZEPHIRO_DEMO: 'no', PORT: '0', ...env },
      encoding: 'utf8',
      timeout: 60_000,
    });
    return { status, said: stderr };
  };
  const isOneLine = /^[^\n]+\n$/;

  test('a newer database', async () => {
    const server = await startServer();
    const { folder } = server;
    await server.close();
    const db = new Database(join(folder, 'zephiro.sqlite'));
    db.pragma('user_version = 99');
    db.close();
    const before = sha256(readFileSync(join(folder, 'zephiro.sqlite')));
    const { status, said } = started(folder);
    expect([status, said]).toEqual([1, expect.stringMatching(/newer Zephiro/)]);
    expect(said).toMatch(isOneLine);
    expect(sha256(readFileSync(join(folder, 'zephiro.sqlite')))).toBe(before);
  });

  test('a file that is no database, and one that is damaged', async () => {
    const none = newFolder();
    writeFileSync(join(none, 'zephiro.sqlite'), 'A letter to the harbour master. '.repeat(400));
    const { status, said } = started(none);
    expect([status, said]).toEqual([1, expect.stringMatching(/damaged or is no database/)]);
    expect(said).toMatch(isOneLine);
    expect(readFileSync(join(none, 'zephiro.sqlite'), 'utf8')).toMatch(/^A letter/);
  });

  test('a file in its place, and a folder that may not be made', () => {
    const file = join(newFolder(), 'data');
    writeFileSync(file, 'kept');
    for (const folder of [file, join(file, 'below')]) {
      const { status, said } = started(folder);
      expect([status, said]).toEqual([1, expect.stringMatching(/a file lies in its place/)]);
      expect(said).toMatch(isOneLine);
    }
    expect(readFileSync(file, 'utf8')).toBe('kept');
  });

  test('a folder of another user that may not be written', () => {
    const folder = mkdtempSync(join(tmpdir(), 'zephiro-'));
    chmodSync(folder, 0o555);
    // Whoever runs this as root may write anywhere: then somebody else tries.
    const asRoot = process.getuid?.() === 0;
    const command = `${JSON.stringify(process.execPath)} --import tsx server/index.ts`;
    const env = { ...process.env, ZEPHIRO_DATA: folder, ZEPHIRO_DEMO: 'no', PORT: '0', HOME: '/tmp' };
    const args = asRoot ? ['-u', 'nobody', '--', 'sh', '-c', command] : ['-c', command];
    const { status, stderr } = spawnSync(asRoot ? 'runuser' : 'sh', args, {
      cwd: join(__dirname, '..'),
      env,
      encoding: 'utf8',
    });
    expect([status, stderr]).toEqual([1, expect.stringMatching(/may not be written by this user|cannot be opened/)]);
    expect(stderr).toMatch(isOneLine);
    rmSync(folder, { recursive: true });
  });

  test('one that another server works with: it says which, and what that one does goes on', async () => {
    const folder = newFolder();
    const port = await freePort();
    const first = await startProgram(folder, port, { ZEPHIRO_DEMO: 'no' });
    const url = `http://127.0.0.1:${port}`;
    await createPiece({ url }, piece());
    mkdirSync(join(folder, 'exporting', 'half'));
    const { status, said } = started(folder);
    expect([status, said]).toEqual([1, expect.stringContaining(`the Zephiro at ${url} (process ${first.pid} on `)]);
    expect(said).toMatch(isOneLine);
    expect(readdirSync(join(folder, 'exporting'))).toEqual(['half']);
    expect((await savePiece({ url }, piece('On'), 1)).status).toBe(200);
    first.kill('SIGKILL');
    await new Promise((resolve) => first.once('exit', resolve));
    const next = await startProgram(folder, port, { ZEPHIRO_DEMO: 'no' });
    expect((await ask(`${url}/api/pieces/p1`)).body.piece!.name).toBe('On');
    next.kill('SIGTERM');
    await new Promise((resolve) => next.once('exit', resolve));
    expect(readdirSync(folder)).not.toContain('server.json');
  });
});
