import { request, type IncomingMessage } from 'node:http';
import * as z from 'zod';
import { API } from '../src/core/api/contract';
import { addressOf, type AnswerOf, type Endpoint } from '../src/core/api/endpoint';
import { newSlot } from '../src/core/piece/edits/chain';
import { emptyPiece } from '../src/core/piece/piece';
import { apiRoutes } from './app';
import { addressesOf } from './hostile/apiAddresses';
import { apiDescription } from './openapi';
import { closeServers, removeFolders, startServer, toneWav, until, type TestServer } from './testing';

afterEach(closeServers);
afterAll(removeFolders);

const endpoints = Object.entries<Endpoint>(API);
const addressIn = ({ method, path }: Endpoint): string => `${method} ${path}`;

test('the router answers every endpoint of the contract, and nothing else', async () => {
  const { services } = await startServer();
  const answered = addressesOf(apiRoutes(services)).map(({ method, path }) => `${method} ${path}`);
  expect(answered.sort()).toEqual(endpoints.map(([, endpoint]) => addressIn(endpoint)).sort());
});

test('every parameter of a path has a schema, and every schema of a parameter is in its path', () => {
  for (const [, { path, params }] of endpoints)
    expect([...path.matchAll(/:(\w+)/g)].map(([, name]) => name)).toEqual(Object.keys(params?.shape ?? {}));
});

describe('the OpenAPI document', () => {
  const document = z
    .object({
      paths: z.record(z.string(), z.record(z.string(), z.object({ operationId: z.string() }))),
      components: z.record(z.string(), z.record(z.string(), z.unknown())),
    })
    .parse(apiDescription());

  test('has every endpoint under its own name', () => {
    const described = Object.entries(document.paths).flatMap(([path, operations]) =>
      Object.entries(operations).map(([method, { operationId }]) => `${operationId}: ${method.toUpperCase()} ${path}`),
    );
    const expected = endpoints.map(
      ([name, { method, path }]) => `${name}: ${method} /api${path.replace(/:(\w+)/g, '{$1}')}`,
    );
    expect(described.sort()).toEqual(expected.sort());
  });

  test('has no reference that leads nowhere', () => {
    const references = [...JSON.stringify(apiDescription()).matchAll(/"\$ref":"([^"]+)"/g)].map(([, to]) => to!);
    expect(references.length).toBeGreaterThan(10);
    for (const reference of references) {
      const [, group, name] = /^#\/components\/(\w+)\/(\w+)$/.exec(reference) ?? [];
      expect([reference, document.components[group ?? '']?.[name ?? '']]).toEqual([reference, expect.anything()]);
    }
  });
});

interface Sent {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, string>>;
  readonly body?: string | Uint8Array<ArrayBuffer>;
  readonly revision?: number;
}

/** The answer of a running server to one endpoint; fails where its status, type or shape are not the contract's. */
async function answerOf<E extends Endpoint>({ url }: TestServer, endpoint: E, sent: Sent = {}): Promise<AnswerOf<E>> {
  const { method, body, answer }: Endpoint = endpoint;
  const type = body?.kind === 'file' ? body.type : 'application/json';
  const response = await fetch(url + addressOf(endpoint, sent), {
    method,
    // An endpoint that never answers is named by the test that asked it.
    signal: AbortSignal.timeout(100_000),
    headers: {
      ...(body ? { 'content-type': type } : {}),
      ...(sent.revision === undefined ? {} : { 'if-match': `"${sent.revision}"` }),
    },
    ...(sent.body === undefined ? {} : { body: sent.body }),
  });
  const text = await response.text();
  expect([addressIn(endpoint), response.status, text.slice(0, 200)]).toEqual([
    addressIn(endpoint),
    answer.kind === 'json' ? answer.status : 200,
    expect.any(String),
  ]);
  if (answer.kind === 'json') return answer.schema.parse(JSON.parse(text)) as AnswerOf<E>;
  expect(answer.types.join()).toContain(response.headers.get('content-type')?.split(';')[0]);
  return undefined as AnswerOf<E>;
}

/** Sends the first half of a file. @returns sends the rest, and waits for the answer */
function beginUpload({ port }: TestServer, path: string, file: Uint8Array): () => Promise<void> {
  const headers = { 'content-type': 'application/octet-stream', 'content-length': file.length };
  const sending = request({ host: '127.0.0.1', port, path, method: 'POST', headers });
  const answered = new Promise<IncomingMessage>((done) => sending.once('response', done));
  sending.write(file.subarray(0, file.length / 2));
  return async () => {
    sending.end(file.subarray(file.length / 2));
    (await answered).resume();
  };
}

test('every endpoint answers as the contract says, from a piece’s beginning to its end', async () => {
  const server = await startServer();
  const asked = new Set<string>();
  const ask = <E extends Endpoint>(endpoint: E, sent?: Sent): Promise<AnswerOf<E>> => {
    asked.add(addressIn(endpoint));
    return answerOf(server, endpoint, sent);
  };
  await ask(API.health);
  await ask(API.describe);
  const wav = new Uint8Array(toneWav(4800));
  const sound = await ask(API.uploadSound, { query: { name: 'Tone' }, body: wav });
  expect(sound).toMatchObject({ name: 'Tone', channels: 1 });
  const { hash, ...info } = sound;
  for (const endpoint of [API.readSound, API.downloadSound]) await ask(endpoint, { params: { hash } });
  expect(await ask(API.checkSound, { params: { hash } })).toEqual({ intact: true });

  const piece = { ...emptyPiece('p1', 'Piece'), sounds: { [hash]: info } };
  const params = { id: 'p1' };
  const { revision } = await ask(API.createPiece, { body: JSON.stringify(piece) });
  const history = { from: 0, entries: [], cursor: 0 };
  const save = { saveId: 's', piece, history };
  expect((await ask(API.savePiece, { params, revision, body: JSON.stringify(save) })).revision).toBe(revision + 1);
  expect((await ask(API.readPiece, { params })).lastSave).toBe('s');
  await ask(API.readDocument, { params });
  await ask(API.writeArchive, { params });
  const archive = new Uint8Array(
    await (await fetch(server.url + addressOf(API.writeArchive, { params }))).arrayBuffer(),
  );
  const { id } = await ask(API.readArchive, { body: archive });
  expect((await ask(API.listPieces)).map((listed) => listed.id).sort()).toEqual([id, 'p1'].sort());

  const block = { id: 'b1', name: 'Block', slots: [newSlot('s1', 'echo', 'neutral')], sounds: {} };
  await ask(API.saveBlock, { body: JSON.stringify(block) });
  expect(await ask(API.listBlocks)).toEqual([block]);
  await ask(API.removeBlock, { params: { id: 'b1' } });

  const order = {
    piece: 'p1',
    what: 'mix',
    fromBeat: 0,
    toBeat: 1,
    tail: 'none',
    format: 'wav16',
    lufs: null,
    prints: [],
  };
  const started = await ask(API.startExport, { body: JSON.stringify(order) });
  let [written] = await ask(API.listExports, { query: { piece: 'p1' } });
  await until(async () => {
    [written] = await ask(API.listExports, { query: { piece: 'p1' } });
    return written?.state === 'done' || written?.state === 'failed';
  });
  expect(written).toMatchObject({ state: 'done', message: '' });
  await ask(API.readExportArchive, { params: { id: started.id } });
  expect((await ask(API.readStorage)).unused.count).toBe(0);
  expect(await ask(API.clearStorage)).toEqual({ count: 0, bytes: 0 });
  await ask(API.readExportFile, { params: { id: started.id, name: written!.files[0]!.name } });
  await ask(API.removeExport, { params: { id: started.id } });

  await ask(API.removePiece, { params });
  expect((await ask(API.listBin)).map((binned) => binned.id)).toEqual(['p1']);
  await ask(API.restorePiece, { params });
  await ask(API.recoverPiece, { params });
  const upload = crypto.randomUUID();
  const finishUpload = beginUpload(server, addressOf(API.uploadSound, { query: { name: 'Slow', upload } }), wav);
  await until(async () => (await fetch(server.url + addressOf(API.uploadStatus, { params: { id: upload } }))).ok);
  expect((await ask(API.uploadStatus, { params: { id: upload } })).state).toBe('receiving');
  await finishUpload();
  expect([...asked].sort()).toEqual(endpoints.map(([, endpoint]) => addressIn(endpoint)).sort());
});
