import type { ChildProcess } from 'node:child_process';
import Database from 'better-sqlite3';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { startServer } from '../scripts/startServer';
import { beatShown, expect, go, saved, test as base, typeInto } from './fixtures';

/** A server of the test's own, that it may stop and start. */
class OwnServer {
  readonly folder = mkdtempSync(join(tmpdir(), 'zephiro-e2e-'));
  private child: ChildProcess | null = null;

  constructor(readonly port: number) {
    cpSync('e2e-data', this.folder, { recursive: true });
  }

  async start(): Promise<void> {
    this.child = await startServer(this.folder, this.port);
  }

  async kill(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  }
}

const test = base.extend<{ server: OwnServer }>({
  server: async ({ page: _page }, provide) => {
    const server = new OwnServer(4181);
    await server.start();
    await provide(server);
    await server.kill();
    rmSync(server.folder, { recursive: true, force: true });
  },
  baseURL: 'http://127.0.0.1:4181',
});

test('the server stops in the middle of work: playing and editing go on, and all of it is saved when it is back', async ({
  page,
  server,
  pieceId,
}) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0);
  await saved(page, pieceId, (stored) => stored.history.cursor === 1);
  await server.kill();
  await typeInto(page, 'Feedback', '33 %');
  await expect(page.getByRole('alert')).toContainText('The server is away. Your work is kept in this browser');
  await typeInto(page, 'Input', '44 %');
  const beat = await beatShown(page);
  await expect.poll(() => beatShown(page)).toBeGreaterThan(beat);
  await server.start();
  const { piece, history } = await saved(page, pieceId, (stored) => stored.history.cursor === 3);
  expect(piece.tracks.find((track) => track.id === 'hum')!.chain[0]!.values).toMatchObject({
    feedback: 0.33,
    input: 0.44,
  });
  expect(history.entries).toHaveLength(3);
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('the window is closed while the server is away: the next one brings the work back', async ({
  page,
  server,
  pieceId,
  context,
}) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).click();
  await saved(page, pieceId, (stored) => stored.history.cursor === 1);
  await server.kill();
  await typeInto(page, 'Feedback', '77 %');
  await expect(page.getByRole('alert')).toBeVisible();
  await page.close();
  await server.start();
  const next = await context.newPage();
  await next.addInitScript((open) => localStorage.setItem('zephiro.open', open), pieceId);
  await next.goto('/chain');
  await expect(next.getByRole('heading', { name: 'Echo' })).toHaveCount(0);
  const { piece } = await saved(next, pieceId, (stored) => stored.history.cursor === 2);
  expect(piece.tracks.find((track) => track.id === 'hum')!.chain[0]!.values.feedback).toBe(0.77);
  await expect(
    next.getByText('dotted eighth', { exact: false }).or(next.getByText('quarter · 652 ms · 77 %')),
  ).toBeVisible();
});

test('opened while the server is away: it says so and opens when asked again', async ({ page, server, pieceId }) => {
  await page.route('**/api/pieces', (route) => route.abort());
  await page.reload();
  await expect(page.getByRole('heading', { name: 'The piece could not be opened' })).toBeVisible();
  await page.unroute('**/api/pieces');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
  expect(server.port).toBe(4181);
  expect(pieceId.length).toBeGreaterThan(8);
});

test('two windows change the same piece: both versions are kept, and each can be opened', async ({
  page,
  server,
  pieceId,
  context,
}) => {
  const other = await context.newPage();
  await other.addInitScript((open) => localStorage.setItem('zephiro.open', open), pieceId);
  await other.goto(`http://127.0.0.1:${server.port}/`);
  await expect(other.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
  await page.getByRole('switch', { name: 'Mute Crates' }).click();
  await saved(page, pieceId, (stored) => stored.revision === 2);
  await other.getByRole('switch', { name: 'Mute Kalimba' }).click();
  await expect(other.getByRole('alert')).toContainText('Both versions are kept');
  await other.getByRole('button', { name: 'Open your kept copy' }).click();
  await expect(other.getByRole('heading', { name: 'Salt Pier (kept copy)' })).toBeVisible();
  await expect(other.getByRole('switch', { name: 'Mute Kalimba' })).toBeChecked();
  const copyId = new URL(other.url()).pathname.split('/')[2]!;
  await other.getByRole('switch', { name: 'Solo Crates' }).click();
  const { piece } = await saved(other, copyId, (stored) => stored.history.cursor === 2);
  expect(piece.name).toBe('Salt Pier (kept copy)');
  await expect(other.getByRole('alert')).toHaveCount(0);
  const pieces = (await (await page.request.get('/api/pieces')).json()) as { copyOf: string | null }[];
  expect(pieces.filter(({ copyOf }) => copyOf === pieceId)).toHaveLength(1);
});

test('a sound that is gone is said, the piece is whole, and it can be asked for again', async ({
  page,
  server,
  pieceId,
}) => {
  let gone = true;
  await page.route(/\/api\/sounds\/[0-9a-f]{64}$/, (route) =>
    gone ? route.fulfill({ status: 404, body: '{}' }) : route.continue(),
  );
  await page.reload();
  await expect(page.getByRole('alert')).toContainText(
    'could not be loaded: it is not on the server. The piece itself is whole.',
  );
  gone = false;
  await page.getByRole('button', { name: 'Load the missing sounds again' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect((await saved(page, pieceId)).revision).toBe(1);
  expect(server.port).toBe(4181);
});

const openIn = async (page: Page, pieceId: string): Promise<void> => {
  await page.addInitScript((open) => localStorage.setItem('zephiro.open', open), pieceId);
  await page.goto('http://127.0.0.1:4181/');
  await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
};

test('two windows are closed while the server is away: the work of both is there afterwards', async ({
  page,
  server,
  pieceId,
  context,
}) => {
  const other = await context.newPage();
  await openIn(other, pieceId);
  await server.kill();
  await page.getByRole('switch', { name: 'Mute Crates' }).click();
  await other.getByRole('switch', { name: 'Mute Kalimba' }).click();
  for (const window of [page, other])
    await expect(window.getByRole('alert').filter({ hasText: 'Your work is kept in this browser' })).toBeVisible();
  await page.close();
  await other.close();
  await server.start();
  const next = await context.newPage();
  await openIn(next, pieceId);
  const listed = (await (await next.request.get('/api/pieces')).json()) as { id: string; copyOf: string | null }[];
  const works = [pieceId, ...listed.filter(({ copyOf }) => copyOf === pieceId).map(({ id }) => id)];
  expect(works).toHaveLength(2);
  const muted = await Promise.all(
    works.map(async (id) => (await saved(next, id)).piece.tracks.filter(({ mute }) => mute).map((track) => track.id)),
  );
  expect(muted.flat().sort()).toEqual(['crates', 'kalimba']);
});

test('an edit is kept when the page is killed in the turn after it', async ({ page, server, pieceId, context }) => {
  await server.kill();
  const client = await context.newCDPSession(page);
  await page.evaluate(() => document.querySelector<HTMLElement>('[role="switch"][aria-label="Mute Crates"]')!.click());
  const crashed = page.waitForEvent('crash');
  void client.send('Page.crash').catch(() => undefined);
  await crashed;
  await server.start();
  const next = await context.newPage();
  await openIn(next, pieceId);
  const { piece, history } = await saved(next, pieceId, (stored) => stored.history.cursor === 1);
  expect([piece.tracks.find(({ id }) => id === 'crates')!.mute, history.entries.length]).toEqual([true, 1]);
});

test('a piece that cannot be read does not lock the rest: its file, its last good state and other pieces are offered', async ({
  page,
  server,
  pieceId,
}) => {
  await page.getByRole('switch', { name: 'Mute Crates' }).click();
  await saved(page, pieceId, (stored) => stored.revision === 2);
  await server.kill();
  const db = new Database(join(server.folder, 'zephiro.sqlite'));
  db.prepare('UPDATE pieces SET document = ? WHERE id = ?').run('{"version":99}', pieceId);
  db.close();
  await server.start();
  await page.reload();
  await expect(page.getByRole('heading', { name: '“Salt Pier” cannot be opened' })).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('newer Zephiro (version 99)');
  await expect(page.getByRole('button', { name: 'Open Salt Pier', exact: true }).first()).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download its file as it is' }).click(),
  ]);
  expect(await readFile((await file.path())!, 'utf8')).toBe('{"version":99}');
  await page.getByRole('button', { name: 'Open its last good state' }).click();
  await expect(page.getByRole('heading', { name: 'Salt Pier (earlier state)' })).toBeVisible();
  await expect(page.getByRole('switch', { name: 'Mute Crates' })).not.toBeChecked();
});

test('Play says so when no audio output answers, and plays once one does', async ({ page, server, pieceId: _open }) => {
  expect(server.port).toBe(4181);
  await page.addInitScript(() => {
    const { resume } = AudioContext.prototype;
    // Hides the real state, which is on the prototype before it.
    Object.defineProperty(AudioContext.prototype, 'state', { configurable: true, get: () => 'suspended' });
    AudioContext.prototype.resume = () => new Promise(() => undefined);
    Object.assign(window, {
      connectOutput: () => {
        Reflect.deleteProperty(AudioContext.prototype, 'state');
        AudioContext.prototype.resume = resume;
      },
    });
  });
  await page.reload();
  const state = page.evaluate(() => Object.getOwnPropertyDescriptor(AudioContext.prototype, 'state') !== undefined);
  expect(await state).toBe(true);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: 'The browser gives no sound' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await page.evaluate(() => (window as unknown as { connectOutput: () => void }).connectOutput());
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0);
});
