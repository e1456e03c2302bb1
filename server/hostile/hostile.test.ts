import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeRandom } from '../../src/core/dsp/random';
import { emptyPiece } from '../../src/core/piece/piece';
import { apiRoutes } from '../app';
import { ask, closeServers, createPiece, rawRequest, removeFolders, sendSound, startServer, toneWav } from '../testing';
import { addressesOf } from './apiAddresses';
import { archiveBombs, claimingWav, constantFlac, emptyBitsAiff } from './bombs';
import { damaged } from './damage';
import { soundFiles } from './files';
import { HOSTILE_BODIES, HOSTILE_MEMBERS, HOSTILE_QUERIES, HOSTILE_SEGMENTS } from './hostileValues';
import { treeMemory } from './processMemory';

afterEach(closeServers);
afterAll(removeFolders);

const MEGABYTE = 1 << 20;

test('no address answers 5xx or touches anything outside, whatever stands for its parameters, its query and its body', async () => {
  const server = await startServer();
  await createPiece(server, emptyPiece('p1', 'Piece'));
  writeFileSync(join(server.folder, 'victim'), 'kept');
  const before = readdirSync(server.folder).sort();
  const addresses = addressesOf(apiRoutes(server.services));
  expect(addresses.length).toBeGreaterThan(20);
  const failed: string[] = [];
  const attempt = async (method: string, path: string, body?: (typeof HOSTILE_BODIES)[number]): Promise<void> => {
    const headers = { ...body?.headers, 'if-match': '"1"' };
    const { status, text } = await rawRequest(server.port, path, { method, headers, body: body?.bytes });
    if (status >= 500 || (status >= 400 && text !== '' && !text.includes('"detail"'))) {
      failed.push(`${method} ${path.slice(0, 80)} with ${body?.what ?? 'nothing'}: ${status} ${text.slice(0, 200)}`);
    }
  };
  for (const { method, path, params } of addresses) {
    const filled = (name: string, value: string): string =>
      `/api${params.reduce((made, param) => made.replace(`:${param}`, param === name ? value : 'p1'), path)}`;
    for (const param of params) {
      for (const value of HOSTILE_SEGMENTS) await attempt(method, filled(param, value));
    }
    for (const query of HOSTILE_QUERIES) await attempt(method, filled('', '') + query);
    if (method === 'GET' || method === 'DELETE') continue;
    for (const body of HOSTILE_BODIES) await attempt(method, `${filled('', '')}?name=n`, body);
  }
  expect(failed).toEqual([]);
  expect(readFileSync(join(server.folder, 'victim'), 'utf8')).toBe('kept');
  expect(readdirSync(server.folder).sort()).toEqual(before);
  expect(readdirSync(join(server.folder, 'arriving'))).toEqual([]);
  expect((await ask(`${server.url}/api/health`)).status).toBe(200);
});

test('a save with a wrong value anywhere in it is refused or mended, and never ends in 5xx', async () => {
  const server = await startServer();
  const piece = emptyPiece('p1', 'Piece');
  await createPiece(server, piece);
  const save = { saveId: 's', piece, history: { from: 0, entries: [], cursor: 0 } };
  const failed: string[] = [];
  for (const path of pathsIn(save)) {
    for (const value of HOSTILE_MEMBERS) {
      const body = JSON.stringify(withValue(save, path, value));
      const headers = { 'content-type': 'application/json', 'if-match': '"1"' };
      const { status, text } = await rawRequest(server.port, '/api/pieces/p1', { method: 'PUT', headers, body });
      if (status >= 500) failed.push(`${path.join('.')} = ${JSON.stringify(value)}: ${status} ${text}`);
      if (status === 200) await rawRequest(server.port, '/api/pieces/p1', { method: 'DELETE' });
      if (status === 200) await rawRequest(server.port, '/api/pieces/p1/restore', { method: 'POST' });
    }
  }
  expect(failed).toEqual([]);
  expect((await ask(`${server.url}/api/pieces/p1`)).status).toBe(200);
});

function pathsIn(value: unknown, path: readonly string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [[...path]];
  return [
    ...(path.length > 0 ? [[...path]] : []),
    ...Object.entries(value).flatMap(([key, one]) => pathsIn(one, [...path, key])),
  ];
}

function withValue(value: unknown, [key, ...rest]: readonly string[], to: unknown): unknown {
  if (key === undefined) return to;
  const members = value as Record<string, unknown>;
  return { ...members, [key]: withValue(members[key], rest, to) };
}

describe('bombs are refused as what they are, in little memory', () => {
  const grows = async (act: () => Promise<void>): Promise<number> => {
    const before = treeMemory(process.pid);
    let most = before;
    const timer = setInterval(() => (most = Math.max(most, treeMemory(process.pid))), 20);
    try {
      await act();
    } finally {
      clearInterval(timer);
    }
    return (most - before) / MEGABYTE;
  };

  test('sounds whose head claims more than is there, or more than is taken', async () => {
    const server = await startServer();
    const wav = { channels: 2, sampleRate: 48_000, bits: 16, dataBytes: 48 };
    const bombs: [Uint8Array, RegExp][] = [
      [emptyBitsAiff(), /0 bits/],
      [claimingWav({ ...wav, channels: 65_535 }), /65535 channels/],
      [claimingWav({ ...wav, channels: 0 }), /0 channels/],
      [claimingWav({ ...wav, sampleRate: 0 }), /0 Hz/],
      [claimingWav({ ...wav, sampleRate: 4_294_967_295 }), /Hz/],
      [claimingWav({ ...wav, bits: 0 }), /0 bit/],
      [claimingWav({ ...wav, dataBytes: 4_294_967_295 }), /cut short/],
      [constantFlac(2700), /minutes/],
    ];
    const grown = await grows(async () => {
      for (const [bytes, message] of bombs) {
        const { status, body } = await sendSound(server, bytes);
        expect([status, body.detail]).toEqual([422, expect.stringMatching(message)]);
      }
    });
    expect(grown).toBeLessThan(450);
    expect(readdirSync(join(server.folder, 'arriving'))).toEqual([]);
    expect((await sendSound(server, toneWav(4800))).status).toBe(201);
  });

  test('archives that unpack to more than is taken', async () => {
    const server = await startServer();
    const bombs = await archiveBombs(emptyPiece('bomb', 'Bomb'));
    const grown = await grows(async () => {
      for (const [what, bytes] of Object.entries(bombs)) {
        const { status, body } = await ask(`${server.url}/api/archives`, {
          method: 'POST',
          body: new Uint8Array(bytes),
        });
        expect([what, [400, 413, 422].includes(status), body.detail]).toEqual([
          what,
          true,
          expect.stringMatching(/changed/),
        ]);
      }
    });
    expect(grown).toBeLessThan(450);
    expect(await server.services.store.listPieces()).toEqual([]);
    expect([readdirSync(join(server.folder, 'arriving')), readdirSync(join(server.folder, 'sounds'))]).toEqual([
      [],
      [],
    ]);
  });
});

test('damaged files of every kind are refused or read, and the server goes on', async () => {
  const server = await startServer({ jobStallMs: 2000 });
  const files = soundFiles();
  const random = makeRandom(16);
  const statuses = new Set<number>();
  for (let i = 0; i < 12; i += 1) {
    const answers = await Promise.all(files.map(([, bytes]) => sendSound(server, damaged(bytes, random))));
    answers.forEach(({ status }) => statuses.add(status));
  }
  expect([...statuses].filter((status) => status !== 201 && status !== 422)).toEqual([]);
  expect(statuses.has(422)).toBe(true);
  expect(readdirSync(join(server.folder, 'arriving'))).toEqual([]);
});
