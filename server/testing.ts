import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { request, type IncomingHttpHeaders, type OutgoingHttpHeaders, type Server } from 'node:http';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { writeWav } from '../src/core/formats/writeWav';
import type { Piece } from '../src/core/piece/piece';
import { createApp, type AppOptions } from './app';
import { openServices, type ServiceOptions, type Services } from './services';

/** A server for one test, with a data folder of its own. */
export interface TestServer {
  readonly url: string;
  readonly port: number;
  readonly folder: string;
  readonly services: Services;
  readonly close: () => Promise<void>;
}

const BUILT = join(__dirname, '..', 'build');
const open = new Set<TestServer>();
const folders: string[] = [];

export function newFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'zephiro-'));
  folders.push(folder);
  return folder;
}

type Options = Partial<Omit<ServiceOptions, 'dataFolder' | 'built'>> &
  Omit<AppOptions, 'services'> & { readonly folder?: string };

export async function startServer(options: Options = {}): Promise<TestServer> {
  const folder = options.folder ?? newFolder();
  const services = await openServices({ ...options, dataFolder: folder, built: BUILT });
  const app = createApp({ ...options, services, quiet: true });
  const server = await new Promise<Server>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  const { port } = server.address() as AddressInfo;
  const started: TestServer = {
    url: `http://127.0.0.1:${port}`,
    port,
    folder,
    services,
    close: async () => {
      open.delete(started);
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await services.close();
    },
  };
  open.add(started);
  return started;
}

/** For `afterEach`. */
export async function closeServers(): Promise<void> {
  await Promise.all([...open].map((server) => server.close()));
}

/** For `afterAll`. */
export function removeFolders(): void {
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
}

/** The fields of any answer of the API that tests look at. */
export interface AnswerBody {
  readonly id?: string;
  readonly title?: string;
  readonly detail?: string;
  readonly revision?: number;
  readonly keptAs?: string;
  readonly lastGood?: string | null;
  readonly hash?: string;
  readonly frames?: number;
  readonly sampleRate?: number;
  readonly channels?: number;
  readonly intact?: boolean;
  readonly piece?: Piece;
  readonly lastSave?: string;
  readonly history?: {
    readonly entries: readonly { readonly label: string; readonly edit: string }[];
    readonly cursor: number;
  };
}

export interface Answer {
  readonly status: number;
  readonly body: AnswerBody;
  readonly type: string;
}

export async function ask(url: string, init?: RequestInit): Promise<Answer> {
  const answer = await fetch(url, init);
  const type = answer.headers.get('content-type') ?? '';
  return { status: answer.status, body: (await answer.json()) as AnswerBody, type };
}

export interface RawAnswer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly text: string;
}

/** A request with any path and headers, as no browser or `fetch` would send them. */
export function rawRequest(
  port: number,
  path: string,
  {
    method = 'GET',
    headers = {},
    body,
  }: { method?: string; headers?: OutgoingHttpHeaders; body?: Uint8Array | string } = {},
): Promise<RawAnswer> {
  return new Promise((resolve, reject) => {
    const sent = request({ host: '127.0.0.1', port, path, method, headers }, (answer) => {
      buffer(answer).then(
        (bytes) => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, text: bytes.toString('utf8') }),
        reject,
      );
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

const JSON_TYPE = { 'content-type': 'application/json' };

export const postJson = (url: string, body: unknown): Promise<Answer> =>
  ask(url, { method: 'POST', headers: JSON_TYPE, body: JSON.stringify(body) });

export const sendSound = ({ url }: Pick<TestServer, 'url'>, bytes: Uint8Array, name = 'sound'): Promise<Answer> =>
  ask(`${url}/api/sounds?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: new Uint8Array(bytes),
    headers: { 'content-type': 'application/octet-stream' },
  });

export const createPiece = ({ url }: Pick<TestServer, 'url'>, piece: Piece): Promise<Answer> =>
  postJson(`${url}/api/pieces`, piece);

/** A history entry that changes nothing. */
export const entry = (label: string): object => ({
  id: randomUUID(),
  at: new Date().toISOString(),
  edit: 'renamePiece',
  label,
  forward: [],
  backward: [],
});

interface SaveParts {
  readonly saveId?: string;
  readonly window?: string;
  readonly from?: number;
  readonly entries?: readonly object[];
  readonly cursor?: number;
}

/** @param revision that it is based on; none is named when null */
export const savePiece = (
  { url }: Pick<TestServer, 'url'>,
  piece: Piece,
  revision: number | null,
  { saveId = randomUUID(), window, from = 0, entries = [], cursor = 0 }: SaveParts = {},
): Promise<Answer> =>
  ask(`${url}/api/pieces/${encodeURIComponent(piece.id)}`, {
    method: 'PUT',
    headers: { ...JSON_TYPE, ...(revision === null ? {} : { 'If-Match': `"${revision}"` }) },
    body: JSON.stringify({ saveId, window, piece, history: { from, entries, cursor } }),
  });

/** A sine of 382 Hz as a 16-bit WAV. */
export const toneWav = (frames: number, channels = 1): Uint8Array =>
  writeWav(
    {
      sampleRate: 48_000,
      channels: Array.from({ length: channels }, () =>
        Float32Array.from({ length: frames }, (_, i) => 0.3 * Math.sin(i / 20)),
      ),
    },
    '16',
  );

/** Timeout for everything that a test waits for, on a busy machine. */
const LONGEST_WAIT_MS = 100_000;

/**
 * Waits until something is so.
 * @throws Error when it has not become so for long, so that a test says what it waits for rather than that it took long
 */
export async function until(isSo: () => boolean | Promise<boolean>): Promise<void> {
  const end = performance.now() + LONGEST_WAIT_MS;
  while (!(await isSo())) {
    if (performance.now() > end) throw new Error(`This has not become so: ${isSo.toString()}`);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
