import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { startServer as startProgram } from '../scripts/startServer';
import { readFloatWav } from '../src/core/formats/floatWav';
import { readWav } from '../src/core/formats/readWav';
import { newSlot } from '../src/core/piece/edits/chain';
import { emptyPiece, type Piece } from '../src/core/piece/piece';
import {
  ask,
  closeServers,
  createPiece as create,
  entry,
  freePort,
  newFolder,
  removeFolders,
  savePiece as save,
  sendSound as send,
  startServer as start,
  toneWav as tone,
  until,
  type Answer,
  type TestServer as Running,
} from './testing';

afterEach(closeServers);
afterAll(removeFolders);

const fixture = (name: string): Uint8Array => readFileSync(join(__dirname, 'fixtures', name));
const piece = (name = 'Piece'): Piece => ({ ...emptyPiece('p1', name) });

describe('sounds', () => {
  test.each(['tone.aiff', 'tone.flac', 'tone.mp3', 'tone.ogg', 'tone.opus'])(
    '%s is taken, kept under its hash and given back with its tones',
    async (name) => {
      const running = await start();
      const { status, body } = await send(running, fixture(name));
      expect([status, body.sampleRate, body.channels]).toEqual([201, 48_000, 2]);
      const bytes = new Uint8Array(await (await fetch(`${running.url}/api/sounds/${body.hash}`)).arrayBuffer());
      expect(createHash('sha256').update(bytes).digest('hex')).toBe(body.hash);
      const audio = readFloatWav(bytes);
      expect(Math.abs(audio.channels[0]!.length / 48_000 - 0.5)).toBeLessThan(0.03);
      [440, 660].forEach((hz, c) => {
        const samples = audio.channels[c]!.subarray(4800, 19_200);
        const sum = samples.reduce(
          ([re, im], x, i) => [
            re! + x * Math.cos((2 * Math.PI * hz * i) / 48_000),
            im! + x * Math.sin((2 * Math.PI * hz * i) / 48_000),
          ],
          [0, 0],
        );
        expect(20 * Math.log10((2 * Math.hypot(sum[0]!, sum[1]!)) / samples.length)).toBeCloseTo(-12, 0);
      });
    },
  );

  test.each([
    [
      'a text named .wav',
      () => Buffer.from('RIFF is a word, and this is a letter to the harbour master.'),
      /not a sound file|lacks|no WAV/,
    ],
    ['a WAV cut short', () => tone(48_000).subarray(0, 60_000), /cut short: 62 %/],
    ['zero samples', () => tone(0), /no samples/],
    ['32 channels', () => tone(480, 32), /32 channels/],
    [
      '200 MB of silence',
      () => {
        const wav = new Uint8Array(200_000_044);
        wav.set(tone(0, 2).subarray(0, 40));
        new DataView(wav.buffer).setUint32(40, 200_000_000, true);
        return wav;
      },
      /only silence/,
    ],
    ['a damaged MP3', () => Uint8Array.of(0xff, 0xfb, 0x90, 0, ...new Array<number>(400).fill(7)), /samples|damaged/],
  ])('%s: 422, says what is wrong, keeps what was there and leaves nothing behind', async (_what, bytes, message) => {
    const running = await start();
    const before = await send(running, tone(4800));
    const { status, body, type } = await send(running, bytes());
    expect([status, type]).toEqual([422, 'application/problem+json; charset=utf-8']);
    expect(body.detail).toMatch(message);
    expect(body.detail).toMatch(/Nothing in your piece was changed/);
    expect((await fetch(`${running.url}/api/sounds/${before.body.hash}`)).status).toBe(200);
    expect([
      readdirSync(join(running.folder, 'sounds')).length,
      readdirSync(join(running.folder, 'arriving')).length,
    ]).toEqual([1, 0]);
  });

  test('a full disk: 507, nothing half-written, and it goes on when there is room', async () => {
    const running = await start();
    const kept = await send(running, tone(4800));
    const wav = tone(9600);
    const refused = await new Promise<number>((resolve, reject) => {
      const upload = request(
        `${running.url}/api/sounds?name=full`,
        { method: 'POST', headers: { 'content-length': wav.length } },
        (answer) => {
          answer.resume();
          resolve(answer.statusCode!);
        },
      );
      upload.on('error', reject);
      upload.write(wav.subarray(0, 100));
      const arriving = join(running.folder, 'arriving');
      void until(() => readdirSync(arriving).length === 1).then(() => {
        // What the decoder is about to write goes to a device that is full.
        symlinkSync('/dev/full', join(arriving, `${readdirSync(arriving)[0]}.wav`));
        upload.end(wav.subarray(100));
      });
    });
    expect(refused).toBe(507);
    expect(readdirSync(join(running.folder, 'sounds'))).toEqual([`${kept.body.hash}.wav`]);
    expect(readdirSync(join(running.folder, 'arriving'))).toEqual([]);
    expect((await send(running, tone(9600))).status).toBe(201);
  });

  test('a download is a WAV of the depth asked for', async () => {
    const running = await start();
    const { body } = await send(running, tone(4800));
    for (const [bits, bytes] of [
      ['16', 2],
      ['24', 3],
      ['32f', 4],
    ] as const) {
      const answer = await fetch(`${running.url}/api/sounds/${body.hash}/file?bits=${bits}&name=My%20print`);
      const wav = new Uint8Array(await answer.arrayBuffer());
      expect(answer.headers.get('content-disposition')).toBe('attachment; filename="My print.wav"');
      expect(wav.length).toBe(44 + 4800 * bytes);
      expect(Math.abs(readWav(wav).channels[0]![100]! - 0.3 * Math.sin(5))).toBeLessThan(1e-4);
    }
  });
});

describe('pieces', () => {
  test('revisions go up, the history replaces its end, and all of it survives a restart', async () => {
    const first = await start();
    await create(first, piece());
    await save(first, piece('One'), 1, { entries: [entry('a'), entry('b')], cursor: 2 });
    expect(
      (await save(first, piece('Two'), 2, { from: 1, entries: [entry('c'), entry('d')], cursor: 2 })).body.revision,
    ).toBe(3);
    await first.close();
    const again = await start({ folder: first.folder });
    const { body } = await ask(`${again.url}/api/pieces/p1`);
    expect([
      body.revision,
      body.piece!.name,
      body.history!.entries.map(({ label }) => label),
      body.history!.cursor,
    ]).toEqual([3, 'Two', ['a', 'c', 'd'], 2]);
  });

  test('two windows: the second save is a 409 and both versions are kept', async () => {
    const running = await start();
    await create(running, piece());
    await save(running, piece('Theirs'), 1);
    const { status, body } = await save(running, piece('Mine'), 1);
    expect([status, body.revision]).toEqual([409, 2]);
    expect((await ask(`${running.url}/api/pieces/p1`)).body.piece!.name).toBe('Theirs');
    expect((await ask(`${running.url}/api/pieces/${body.keptAs}`)).body.piece!.name).toBe('Mine (kept copy)');
  });

  test('a save whose answer was lost can be sent again', async () => {
    const running = await start();
    await create(running, piece());
    expect([
      (await save(running, piece('One'), 1, { saveId: 's' })).body.revision,
      (await save(running, piece('One'), 1, { saveId: 's' })).body.revision,
    ]).toEqual([2, 2]);
  });

  test('a full disk: 507, the piece as it was, and the next save works', async () => {
    const first = await start();
    await create(first, piece());
    const heavy: Piece = {
      ...piece('Heavy'),
      lanes: Array.from({ length: 4000 / 10 }, (_, i) => ({
        id: `l${i}`,
        target: { kind: 'channel', channel: 'main', param: 'gain' },
        unit: 'own' as const,
        on: true,
        points: [{ beat: 0, value: 1, shape: 'line' as const, bend: 0 }],
      })),
    };
    await first.close();
    const full = await start({ folder: first.folder, maxPages: 16 });
    expect((await save(full, heavy, 1)).status).toBe(507);
    expect((await ask(`${full.url}/api/pieces/p1`)).body).toMatchObject({ revision: 1, piece: { name: 'Piece' } });
    await full.close();
    expect((await save(await start({ folder: first.folder }), heavy, 1)).status).toBe(200);
  });

  test.each([
    ['no If-Match', 428, (r: Running) => save(r, piece(), null)],
    ['no such piece', 404, (r: Running) => save(r, { ...piece(), id: 'other' }, 1)],
    ['a piece that is none', 400, (r: Running) => save(r, { ...piece(), tempo: { bpm: 1, beatsPerBar: 4 } }, 1)],
    ['a piece that is there already', 409, (r: Running) => create(r, piece())],
    [
      'no JSON',
      400,
      ({ url }: Running) =>
        ask(`${url}/api/pieces`, { method: 'POST', body: '{', headers: { 'content-type': 'application/json' } }),
    ],
    ['no such address', 404, ({ url }: Running) => ask(`${url}/api/nothing`)],
    ['a hash that is none', 400, ({ url }: Running) => ask(`${url}/api/sounds/..%2f..%2fetc`)],
    [
      'another site',
      403,
      ({ url }: Running) => ask(`${url}/api/pieces`, { headers: { origin: 'https://elsewhere.example' } }),
    ],
  ])('%s: %d as problem+json with what to do', async (_what, expected, request) => {
    const running = await start();
    await create(running, piece());
    const { status, body, type } = await request(running);
    expect([status, type]).toEqual([expected, 'application/problem+json; charset=utf-8']);
    expect(body.detail!.length).toBeGreaterThan(10);
    expect((await ask(`${running.url}/api/pieces/p1`)).body.piece).toEqual(piece());
  });
});

test('every answer keeps the page isolated', async () => {
  const { url } = await start();
  for (const path of ['/api/pieces', '/api/nothing', '/']) {
    const { headers } = await fetch(url + path);
    if (path.startsWith('/api'))
      expect(headers.get('content-security-policy')).toMatch(/base-uri 'none';form-action 'none'/);
    expect([
      headers.get('cross-origin-opener-policy'),
      headers.get('cross-origin-embedder-policy'),
      headers.get('cross-origin-resource-policy'),
    ]).toEqual(['same-origin', 'require-corp', 'same-origin']);
  }
});

test('a server killed in the middle of saving has every answered save, whole', async () => {
  const folder = newFolder();
  const port = await freePort();
  const child = await startProgram(folder, port, { ZEPHIRO_DEMO: 'no' });
  const running = { url: `http://127.0.0.1:${port}` } as Running;
  await create(running, piece());
  let answered = 1;
  setTimeout(() => child.kill('SIGKILL'), 400);
  try {
    for (;;)
      answered = (
        await save(running, { ...piece(`After ${answered}`) }, answered, {
          from: answered - 1,
          entries: [entry(`n${answered}`)],
          cursor: answered,
        })
      ).body.revision!;
  } catch {
    // The kill ends the loop.
  }
  const again = await start({ folder });
  const { body } = await ask(`${again.url}/api/pieces/p1`);
  expect(answered).toBeGreaterThan(3);
  expect(body.revision).toBeGreaterThanOrEqual(answered);
  expect(body.piece!.name).toBe(`After ${body.revision! - 1}`);
  expect(body.history!.entries.length).toBe(body.revision! - 1);
});

test('a server whose port another holds ends, and does not say that it listens', async () => {
  const { url } = await start();
  await expect(startProgram(newFolder(), Number(new URL(url).port), { ZEPHIRO_DEMO: 'no' })).rejects.toThrow(
    'ended with 1',
  );
});

test('a block is kept for any piece, once, and can be removed; a damaged one is refused', async () => {
  const server = await start();
  const block = { id: 'b1', name: 'Bloom', slots: [newSlot('s', 'braid', 'bloom')], sounds: {} };
  const post = (body: unknown): Promise<Answer> =>
    ask(`${server.url}/api/blocks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  expect((await post(block)).status).toBe(201);
  expect((await post(block)).status).toBe(409);
  expect((await post({ ...block, id: 'b2', slots: [{ ...block.slots[0], effect: 'unheard' }] })).status).toBe(400);
  expect((await ask(`${server.url}/api/blocks`)).body).toEqual([JSON.parse(JSON.stringify(block))]);
  expect((await ask(`${server.url}/api/blocks/b1`, { method: 'DELETE' })).status).toBe(200);
  expect((await ask(`${server.url}/api/blocks/b1`, { method: 'DELETE' })).status).toBe(404);
});

test('the client comes as it lies compressed; what bears its hash is kept by the browser, the page is asked for each time', async () => {
  const client = newFolder();
  const [page, code] = ['<!doctype html><title>Page</title>', `export const answer = ${'4'.repeat(2000)};`];
  const named = `entry-${'a1'.repeat(16)}.js`;
  writeFileSync(join(client, 'index.html'), page);
  for (const name of [named, 'plain.js']) {
    writeFileSync(join(client, name), code);
    writeFileSync(join(client, `${name}.br`), brotliCompressSync(code));
  }
  const { url } = await start({ client });
  const got = async (path: string): Promise<readonly (string | null)[]> => {
    const answer = await fetch(`${url}${path}`, { headers: { 'accept-encoding': 'br' } });
    return [await answer.text(), answer.headers.get('content-encoding'), answer.headers.get('cache-control')];
  };
  expect(await got(`/${named}`)).toEqual([code, 'br', 'public, max-age=31536000, immutable']);
  expect(await got('/plain.js')).toEqual([code, 'br', 'no-cache']);
  expect((await got('/chain'))[0]).toBe(page);
  expect((await got('/chain'))[2]).toMatch(/max-age=0/);
});

test('an export’s id leads nowhere but to its own folder', async () => {
  const { url, folder } = await start();
  writeFileSync(join(folder, 'victim'), 'kept');
  for (const id of ['..%2Fvictim', '%2e%2e', '..%2F..%2Fvictim', 'victim', randomUUID()]) {
    for (const path of [`/api/exports/${id}`, `/api/exports/${id}/files/victim`]) {
      const { status } = await ask(url + path, {
        method: path.endsWith('victim') && path.includes('files') ? 'GET' : 'DELETE',
      });
      expect([400, 404]).toContain(status);
    }
  }
  expect(readFileSync(join(folder, 'victim'), 'utf8')).toBe('kept');
});
