import Database from 'better-sqlite3';
import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeWav } from '../../src/core/formats/writeWav';
import * as z from 'zod';
import { applyPiecePatches, historyEntrySchema } from '../../src/core/piece/edit';
import { emptyPiece, type Piece, type Target } from '../../src/core/piece/piece';
import { zipOf } from '../hostile/bombs';
import {
  ask,
  closeServers,
  createPiece,
  entry,
  rawRequest,
  removeFolders,
  savePiece,
  sendSound,
  startServer,
  toneWav,
  until,
  type TestServer,
} from '../testing';
import { historyWithin } from './storeApi';

afterEach(closeServers);
afterAll(removeFolders);

const piece = (name = 'Piece'): Piece => ({ ...emptyPiece('p1', name) });
const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

describe('pieces', () => {
  test('one that cannot be read says why, gives its file as it is, and its last good state as another piece', async () => {
    const first = await startServer();
    await createPiece(first, piece());
    await savePiece(first, piece('Good'), 1);
    await savePiece(first, piece('Spoiled'), 2);
    await createPiece(first, { ...piece('Other'), id: 'p2' });
    await first.close();
    const db = new Database(join(first.folder, 'zephiro.sqlite'));
    const damage = JSON.stringify({ ...piece('Spoiled'), version: 99 });
    db.prepare("UPDATE pieces SET document = ? WHERE id = 'p1'").run(damage);
    db.close();
    const server = await startServer({ folder: first.folder });
    const { status, body } = await ask(`${server.url}/api/pieces/p1`);
    expect([status, body.detail]).toEqual([422, expect.stringMatching(/newer Zephiro \(version 99\).*left as it is/)]);
    expect(body.lastGood).toMatch(/^\d{4}-/);
    expect((await rawRequest(server.port, '/api/pieces/p1/document')).text).toBe(damage);
    expect((await ask(`${server.url}/api/pieces/p2`)).status).toBe(200);
    const recovered = await ask(`${server.url}/api/pieces/p1/recover`, { method: 'POST' });
    expect(recovered.status).toBe(201);
    const read = await ask(`${server.url}/api/pieces/${recovered.body.id}`);
    expect(read.body.piece).toEqual({ ...piece('Good'), id: recovered.body.id, name: 'Spoiled (earlier state)' });
    expect((await rawRequest(server.port, '/api/pieces/p1/document')).text).toBe(damage);
  });

  test('a damaged row of the history costs that row', async () => {
    const first = await startServer();
    await createPiece(first, piece());
    await savePiece(first, piece('One'), 1, { entries: ['a', 'b', 'c'].map(entry), cursor: 3 });
    await first.close();
    const db = new Database(join(first.folder, 'zephiro.sqlite'));
    db.prepare("UPDATE history SET entry = '{\"half' WHERE place = 1").run();
    db.close();
    const server = await startServer({ folder: first.folder });
    const { body } = await ask(`${server.url}/api/pieces/p1`);
    expect(body.history!.entries.map(({ label, edit }) => [label, edit])).toEqual([
      ['a', 'renamePiece'],
      ['An edit that cannot be read any more', 'unreadable'],
      ['c', 'renamePiece'],
    ]);
    expect([body.piece!.name, body.history!.cursor]).toEqual(['One', 3]);
    expect((await savePiece(server, piece('Two'), 2, { from: 3, entries: [entry('d')], cursor: 4 })).status).toBe(200);
  });

  test('one of an earlier version is brought to this one with its history, once, as the same revision', async () => {
    const first = await startServer();
    await createPiece(first, piece());
    const lane = (param: string): object => ({
      id: 'l',
      target: { channel: 'main', effect: null, param },
      unit: 'own',
      on: true,
      points: [{ beat: 0, value: 0.5, shape: 'line', bend: 0 }],
    });
    const drawn = { forward: [{ op: 'add', path: ['lanes', 0], value: lane('gain') }] };
    const undrawn = { backward: [{ op: 'replace', path: ['lanes', 'length'], value: 0 }] };
    const turned = {
      forward: [{ op: 'replace', path: ['lanes', 0, 'target', 'param'], value: 'tempo' }],
      backward: [{ op: 'replace', path: ['lanes', 0, 'target', 'param'], value: 'gain' }],
    };
    const entries = [
      { ...entry('Draw'), ...drawn, ...undrawn },
      { ...entry('Turn'), ...turned },
    ];
    await savePiece(first, piece(), 1, { entries, cursor: 2 });
    await first.close();
    const db = new Database(join(first.folder, 'zephiro.sqlite'));
    const stored = JSON.stringify({ ...piece(), version: 5, lanes: [lane('tempo')] });
    db.prepare("UPDATE pieces SET document = ? WHERE id = 'p1'").run(stored);
    db.close();
    const server = await startServer({ folder: first.folder });
    const { body } = await ask(`${server.url}/api/pieces/p1`);
    expect([body.piece!.version, body.piece!.lanes[0]!.target, body.revision]).toEqual([7, { kind: 'tempo' }, 2]);
    const [draw, turn] = z.array(historyEntrySchema).parse(body.history!.entries);
    const before = applyPiecePatches(body.piece!, turn!.backward);
    expect(before.lanes[0]!.target).toEqual({ kind: 'channel', channel: 'main', param: 'gain' });
    expect(applyPiecePatches(before, draw!.backward).lanes).toEqual([]);
    expect(applyPiecePatches(before, turn!.forward).lanes).toEqual(body.piece!.lanes);
    expect((await ask(`${server.url}/api/pieces/p1`)).body).toEqual(body);
    const next = await savePiece(server, { ...body.piece!, name: 'On' }, 2, {
      from: 2,
      entries: [entry('On')],
      cursor: 3,
    });
    expect(next.status).toBe(200);
    expect((await ask(`${server.url}/api/pieces/p1`)).body.history!.entries.slice(0, 2)).toEqual([draw, turn]);
  });

  test('a history that would leave a gap is refused', async () => {
    const server = await startServer();
    await createPiece(server, piece());
    await savePiece(server, piece('One'), 1, { entries: [entry('a')], cursor: 1 });
    expect((await savePiece(server, piece('Two'), 2, { from: 2, entries: [entry('c')], cursor: 3 })).status).toBe(400);
    expect((await savePiece(server, piece('Two'), 2, { from: 1, entries: [entry('b')], cursor: 3 })).status).toBe(400);
    expect((await savePiece(server, piece('Two'), 2, { from: 2 ** 53, entries: [] })).status).toBe(400);
    expect((await ask(`${server.url}/api/pieces/p1`)).body).toMatchObject({ revision: 2, piece: { name: 'One' } });
  });

  test('a conflict keeps one copy with its history, however often and in whatever form the save comes again', async () => {
    const server = await startServer();
    await createPiece(server, piece());
    await savePiece(server, piece('One'), 1, { entries: [entry('a')], cursor: 1 });
    await savePiece(server, piece('Theirs'), 2, { from: 1, entries: [entry('theirs')], cursor: 2 });
    const mine = { saveId: 'mine', window: 'w1', from: 1, entries: [entry('b')], cursor: 2 };
    const first = await savePiece(server, piece('Mine'), 2, mine);
    const again = await savePiece(server, piece('Mine'), 2, mine);
    const more = await savePiece(server, piece('Mine, more'), 2, {
      ...mine,
      saveId: 'more',
      entries: ['b', 'c'].map(entry),
      cursor: 3,
    });
    expect([first.status, again.status, more.status]).toEqual([409, 409, 409]);
    expect([again.body.keptAs, more.body.keptAs]).toEqual([first.body.keptAs, first.body.keptAs]);
    const copy = (await ask(`${server.url}/api/pieces/${first.body.keptAs}`)).body;
    expect([copy.piece!.name, copy.history!.entries.map(({ label }) => label), copy.history!.cursor]).toEqual([
      'Mine, more (kept copy)',
      ['a', 'b', 'c'],
      3,
    ]);
    // Another window on the same base has a copy of its own, and so has one that goes on after somebody has worked with
    // the copy.
    const other = await savePiece(server, piece('Other'), 2, { saveId: 'other', window: 'w2' });
    await savePiece(server, { ...copy.piece!, name: 'Worked on' }, copy.revision!);
    const later = await savePiece(server, piece('Later'), 2, { ...mine, saveId: 'later' });
    expect(new Set([first, other, later].map(({ body }) => body.keptAs)).size).toBe(3);
    const listed = await server.services.store.listPieces();
    expect(listed.map(({ copyOf }) => copyOf)).toEqual(expect.arrayContaining(['p1', 'p1', 'p1', null]));
    expect(listed).toHaveLength(4);
    expect((await ask(`${server.url}/api/pieces/${first.body.keptAs}`, { method: 'DELETE' })).status).toBe(200);
    expect(await server.services.store.listPieces()).toHaveLength(3);
    expect((await savePiece(server, piece('Theirs, still'), 3)).status).toBe(200);
  });

  test('without a window’s name the same piece again is the same copy', async () => {
    const server = await startServer();
    await createPiece(server, piece());
    await savePiece(server, piece('Theirs'), 1);
    const copies = new Set<string | undefined>();
    for (let i = 0; i < 4; i += 1) copies.add((await savePiece(server, piece('Mine'), 1)).body.keptAs);
    expect(copies.size).toBe(1);
  });

  test('a removed piece is gone from the list, comes back whole, and its id stays taken meanwhile', async () => {
    const server = await startServer();
    await createPiece(server, piece());
    await ask(`${server.url}/api/pieces/p1`, { method: 'DELETE' });
    expect([(await ask(`${server.url}/api/pieces/p1`)).status, (await createPiece(server, piece())).status]).toEqual([
      404, 409,
    ]);
    expect((await ask(`${server.url}/api/pieces/p1/restore`, { method: 'POST' })).status).toBe(200);
    expect((await ask(`${server.url}/api/pieces/p1`)).body.piece).toEqual(piece());
  });

  test('one that takes more memory than there is for it is refused, and the next is served', async () => {
    const server = await startServer({ maxHeapMb: 48 });
    await createPiece(server, piece());
    const points = Array.from({ length: 90_000 }, (_, i) => ({
      beat: i / 8,
      value: 0.5,
      shape: 'line' as const,
      bend: 0,
    }));
    const target: Target = { kind: 'channel', channel: 'main', param: 'gain' };
    const lanes = Array.from({ length: 8 }, (_, i) => ({
      id: `l${i}`,
      target,
      unit: 'own' as const,
      on: true,
      points,
    }));
    const refused = await savePiece(server, { ...piece('Heavy'), lanes }, 1);
    expect([refused.status, refused.body.detail]).toEqual([413, expect.stringMatching(/more memory than there is/)]);
    expect((await ask(`${server.url}/api/pieces/p1`)).body).toMatchObject({ revision: 1, piece: { name: 'Piece' } });
    expect((await savePiece(server, piece('On'), 1)).status).toBe(200);
  });

  test('an archive takes as much of a long history as is read back, the newest of it', () => {
    const entries = ['a', 'b', 'c', 'd'].map((label) => ({
      ...entry(label),
      label,
      at: '',
      edit: 'renamePiece',
      id: label,
      forward: [],
      backward: [],
    }));
    const [size] = entries.map((one) => JSON.stringify(one).length) as [number];
    const labels = (cursor: number, bytes: number): unknown => {
      const kept = historyWithin({ entries, cursor }, bytes);
      return [kept.entries.map(({ label }) => label).join(''), kept.cursor];
    };
    expect([labels(3, 4 * size), labels(3, 2.5 * size), labels(1, 2.5 * size), labels(4, 0)]).toEqual([
      ['abcd', 3],
      ['cd', 1],
      ['', 0],
      ['', 0],
    ]);
  });

  test('half a surrogate in a name is mended, and the archive can be saved under it', async () => {
    const server = await startServer();
    await createPiece(server, piece('Low \ud800 tide\n/'));
    expect((await ask(`${server.url}/api/pieces/p1`)).body.piece!.name).toBe('Low \ufffd tide\n/');
    const archive = await fetch(`${server.url}/api/pieces/p1/archive`);
    expect([archive.status, archive.headers.get('content-disposition')]).toEqual([
      200,
      expect.stringContaining('.zip'),
    ]);
    await archive.arrayBuffer();
  });
});

describe('sounds', () => {
  const stored = (server: TestServer, hash: string): string => join(server.folder, 'sounds', `${hash}.wav`);

  test('a file cut short is not served, is found by its hash, and is mended by bringing it in again', async () => {
    const server = await startServer();
    const { hash } = (await sendSound(server, toneWav(4800))).body;
    const whole = readFileSync(stored(server, hash!));
    truncateSync(stored(server, hash!), whole.length - 4);
    expect((await ask(`${server.url}/api/sounds/${hash}`)).body.detail).toMatch(/not whole.*again: that mends it/);
    await sendSound(server, toneWav(4800));
    const spoiled = Buffer.from(whole);
    spoiled[whole.length - 1]! ^= 1;
    writeFileSync(stored(server, hash!), spoiled);
    const check = async (): Promise<boolean | undefined> =>
      (await ask(`${server.url}/api/sounds/${hash}/check`)).body.intact;
    expect(await check()).toBe(false);
    await sendSound(server, toneWav(4800));
    expect([await check(), sha256(readFileSync(stored(server, hash!)))]).toEqual([true, hash]);
  });

  test('an archive whose sounds have another form or false figures is brought to the right ones', async () => {
    const server = await startServer();
    const wav = toneWav(4800, 2);
    const given = sha256(wav);
    const clip = {
      id: 'c',
      name: 'clip',
      sound: given,
      start: 0,
      offsetSeconds: 0,
      lengthSeconds: 0.1,
      gain: 1,
      fadeInSeconds: 0,
      fadeOutSeconds: 0,
      print: null,
    };
    const track = {
      id: 't',
      name: 'T',
      gain: 1,
      pan: 0,
      mute: false,
      solo: false,
      sends: [],
      chain: [],
      clips: [clip],
    };
    const archived = {
      ...piece(),
      tracks: [track],
      sounds: {
        [given]: {
          name: 'tone',
          frames: 9_999_999,
          sampleRate: 8000,
          channels: 1,
          loop: { first: 10, last: 8_000_000 },
        },
      },
    };
    const zip = await zipOf({ 'piece.json': Buffer.from(JSON.stringify(archived)), [`sounds/${given}.wav`]: wav });
    const { status, body } = await ask(`${server.url}/api/archives`, { method: 'POST', body: new Uint8Array(zip) });
    expect(status).toBe(201);
    const read = (await ask(`${server.url}/api/pieces/${body.id}`)).body.piece!;
    const [[hash, info]] = Object.entries(read.sounds) as [[string, object]];
    expect(info).toEqual({ name: 'tone', frames: 4800, sampleRate: 48_000, channels: 2 });
    expect(read.tracks[0]!.clips[0]!.sound).toBe(hash);
    expect((await ask(`${server.url}/api/sounds/${hash}/check`)).body.intact).toBe(true);
  });

  test('those beyond the number of processes wait, are told their place, and end when the asker goes', async () => {
    const server = await startServer({ size: 1 });
    const long = writeWav({ sampleRate: 48_000, channels: [new Float32Array(8_000_000).fill(0.1)] }, '16');
    const ids = [0, 1, 2, 3].map(() => randomUUID());
    const asker = new AbortController();
    const uploads = ids.map((id, i) =>
      fetch(`${server.url}/api/sounds?name=n&upload=${id}`, {
        method: 'POST',
        body: new Uint8Array(long),
        signal: i === 3 ? asker.signal : undefined,
      }).then(
        ({ status }) => status,
        () => 0,
      ),
    );
    const seen = new Set<string>();
    await until(async () => {
      for (const id of ids) {
        const { status, body } = await ask(`${server.url}/api/uploads/${id}`);
        const { state, ahead } = body as { state?: string; ahead?: number };
        if (status === 200) seen.add(`${state} ${ahead}`);
      }
      return seen.has('working 0') && seen.has('waiting 1');
    });
    asker.abort();
    expect((await Promise.all(uploads)).sort()).toEqual([0, 201, 201, 201]);
    await until(() => readdirSync(join(server.folder, 'arriving')).length === 0);
    expect((await ask(`${server.url}/api/uploads/${ids[0]}`)).status).toBe(404);
  });
});
