import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import * as yauzl from 'yauzl';
import type { ExportOrder, ExportStatus } from '../../src/core/files/order';
import { peakOf } from '../../src/core/analysis/levels';
import { loudness } from '../../src/core/analysis/loudness';
import { readWav } from '../../src/core/formats/readWav';
import { writeWav } from '../../src/core/formats/writeWav';
import { emptyPiece, type Piece } from '../../src/core/piece/piece';
import { toProblem } from '../http/problem';
import { closeServers, newFolder, removeFolders, startServer, until, type TestServer } from '../testing';
import { GrowingFile } from './growingFile';

/** By programs of Debian: `apt-get install sndfile-programs flac`, which scripts/test does. */
const tool = (name: string, ...args: readonly string[]): string =>
  execFileSync(name, [...args], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });

const RATE = 48_000;
const wave = Float32Array.from(
  { length: 2 * RATE },
  (_, i) => 0.25 * Math.sin((2 * Math.PI * 330 * i) / RATE) * Math.min(1, i / 480, (2 * RATE - i) / 480),
);
/** One peak far over the rest. */
wave[RATE] = 0.9;
const stored = writeWav({ sampleRate: RATE, channels: [wave, wave.map((x) => 0.5 * x)] }, '32f');
const TODAY = new Date().toISOString().slice(0, 10);
const HASH = createHash('sha256').update(stored).digest('hex');

const song: Piece = {
  ...emptyPiece('song', 'Low: tide?'),
  tempo: { bpm: 120, beatsPerBar: 4 },
  lengthBeats: 8,
  sounds: {
    [HASH]: { name: 'wave', frames: wave.length, sampleRate: RATE, channels: 2, loop: { first: 480, last: 90_000 } },
  },
  sections: [
    { id: 's1', name: 'Ebb', beat: 1 },
    { id: 's2', name: 'Flood, again', beat: 3 },
  ],
  tracks: [1, 2].map((n) => ({
    id: `t${n}`,
    name: `Track ${n}`,
    gain: 1,
    pan: 0,
    mute: false,
    solo: false,
    chain: [],
    sends: [],
    clips: [
      {
        id: `c${n}`,
        name: 'clip',
        sound: HASH,
        start: n,
        offsetSeconds: 0,
        lengthSeconds: 2,
        gain: 1,
        fadeInSeconds: 0,
        fadeOutSeconds: 0,
        print: null,
      },
    ],
  })),
  prints: [
    {
      id: 'p1',
      name: 'A print',
      sound: HASH,
      startSample: 12_345,
      sampleRate: RATE,
      madeAt: '',
      from: {
        channel: 't1',
        channelName: 'Track 1',
        clip: null,
        fromBeat: 0,
        toBeat: 4,
        part: 'wet',
        tail: '',
        bpm: 120,
      },
    },
  ],
};
const ORDER: ExportOrder = {
  piece: 'song',
  what: 'mix',
  fromBeat: 0,
  toBeat: 8,
  tail: 'none',
  format: 'wav24',
  lufs: null,
  prints: [],
};

let server: TestServer;
let folder = '';
let url = '';

beforeEach(async () => {
  server = await startServer();
  ({ folder } = server);
  url = `${server.url}/api`;
  await server.services.sounds.put(stored, HASH, song.sounds[HASH]!);
  await server.services.store.installPiece(song);
});
afterEach(closeServers);
afterAll(removeFolders);

/** What a zip file holds, in its order. */
function filesOfZip(bytes: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    yauzl.fromBuffer(bytes, { lazyEntries: true }, (failed, zip) => {
      if (failed) return reject(failed);
      const files = new Map<string, Buffer>();
      zip.on('entry', (entry: yauzl.Entry) =>
        zip.openReadStream(entry, (error, stream) => {
          if (error) return reject(error);
          void buffer(stream).then((data) => {
            files.set(entry.fileName, data);
            zip.readEntry();
          });
        }),
      );
      zip.on('end', () => resolve(files));
      zip.readEntry();
    });
  });
}

const post = (order: ExportOrder): Promise<Response> =>
  fetch(`${url}/exports`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(order),
  });
const listed = async (): Promise<ExportStatus[]> =>
  (await (await fetch(`${url}/exports?piece=song`)).json()) as ExportStatus[];

async function statusWhen(id: string, ends: (status: ExportStatus) => boolean): Promise<ExportStatus> {
  for (;;) {
    const status = (await listed()).find((one) => one.id === id)!;
    if (ends(status)) return status;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
const isOver = ({ state }: ExportStatus): boolean => state !== 'waiting' && state !== 'running';

async function exported(
  order: Partial<ExportOrder>,
): Promise<{ readonly status: ExportStatus; readonly paths: string[] }> {
  const { id } = (await (await post({ ...ORDER, ...order })).json()) as { id: string };
  const status = await statusWhen(id, isOver);
  return { status, paths: status.files.map(({ name }) => join(folder, 'exports', id, name)) };
}

test('a WAV is read by others with its length, rate, markers and time stamp, and by us as it was', async () => {
  const { status, paths } = await exported({ fromBeat: 1, format: 'wav24' });
  expect(status).toMatchObject({ state: 'done', files: [{ name: `Low tide - mix - bars 1.25 to 3 - ${TODAY}.wav` }] });
  const info = tool('sndfile-info', paths[0]!);
  expect(info).toMatch(/Sample Rate : 48000/);
  expect(info).toMatch(new RegExp(`Frames +: ${3.5 * RATE}`));
  expect(info).toMatch(/Bit Width +: 24/);
  expect(info).toMatch(/Cue ID : +1 +Pos : +0[\s\S]*Cue ID : +2 +Pos : +48000/);
  expect(info).toMatch(/labl : 1 : Ebb\s+labl : 2 : Flood, again/);
  expect(tool('sndfile-info', '--broadcast', paths[0]!)).toMatch(/0\.500000 seconds/);
  const audio = readWav(readFileSync(paths[0]!));
  expect(audio.channels[0]!.length).toBe(3.5 * RATE);
  expect(audio.channels[0]!.every((x, i) => Math.abs(x - ((wave[i] ?? 0) + (wave[i - RATE / 2] ?? 0))) < 1e-6)).toBe(
    true,
  );
});

test('the loop of a bed is in its file, as others read it', async () => {
  const { paths } = await exported({ what: 'prints', prints: ['p1'], format: 'wav16' });
  const info = tool('sndfile-info', paths[0]!);
  expect(tool('sndfile-info', '--instrument', paths[0]!)).toMatch(/Start : +480 +End : +9000[01]/);
  expect(info).toMatch(/Bit Width +: 16/);
  expect(tool('sndfile-info', '--broadcast', paths[0]!)).toMatch(/0\.25718[78] seconds/);
});

test.each([
  ['flac16', 32_768],
  ['flac24', 8_388_608],
] as const)('%s passes the reference decoder’s own test, and gives the samples back', async (format, steps) => {
  const { paths } = await exported({ format });
  tool('flac', '--test', '--silent', paths[0]!);
  tool('flac', '--decode', '--silent', '--force', '-o', `${paths[0]!}.wav`, paths[0]!);
  const back = readWav(readFileSync(`${paths[0]!}.wav`)).channels[0]!;
  expect(back.length).toBe(4 * RATE);
  expect(back.every((x, i) => Math.abs(x - ((wave[i - RATE / 2] ?? 0) + (wave[i - RATE] ?? 0))) < 2.5 / steps)).toBe(
    true,
  );
});

test('brought to a loudness it stands there; what its peaks do not allow is left and said', async () => {
  const { status, paths } = await exported({ lufs: -23, format: 'wav32f' });
  expect(loudness(readWav(readFileSync(paths[0]!)).channels, RATE).integrated).toBeCloseTo(-23, 0);
  expect(status.message).toMatch(/\u221223\.0 LUFS/);
  const loud = await exported({ lufs: -6, format: 'wav32f' });
  expect(loud.status.message).toMatch(/peaks allow/);
  expect(peakOf(readWav(readFileSync(loud.paths[0]!)).channels[0]!)).toBeLessThanOrEqual(Math.pow(10, -1 / 20) + 1e-4);
});

test('stems are a file for each track under names of their own, and add up to the mix', async () => {
  const { status, paths } = await exported({ what: 'stems', format: 'wav32f' });
  const names = ['01 Track 1', '02 Track 2'].map((track) => `Low tide - ${track} - ${TODAY}.wav`);
  expect(status.files.map(({ name }) => name)).toEqual(names);
  const zip = await fetch(`${url}/exports/${status.id}/archive`);
  expect(zip.headers.get('content-disposition')).toContain(`Low tide - stems - ${TODAY}.zip`);
  const zipped = await filesOfZip(Buffer.from(await zip.arrayBuffer()));
  expect([...zipped.keys()]).toEqual(names);
  names.forEach((name, i) => expect(zipped.get(name)!.equals(readFileSync(paths[i]!))).toBe(true));
  const mix = readWav(readFileSync((await exported({ format: 'wav32f' })).paths[0]!)).channels[0]!;
  const stems = paths.map((path) => readWav(readFileSync(path)).channels[0]!);
  expect(mix.every((x, i) => Math.abs(x - stems[0]![i]! - stems[1]![i]!) < 1e-6)).toBe(true);
});

const LONG: Piece = { ...song, id: 'long', lengthBeats: 90_000 };
const statusOf = async (id: string, piece = 'song'): Promise<ExportStatus> =>
  ((await (await fetch(`${url}/exports?piece=${piece}`)).json()) as ExportStatus[]).find((one) => one.id === id)!;
const begin = async (order: Partial<ExportOrder>): Promise<string> =>
  ((await (await post({ ...ORDER, ...order })).json()) as { id: string }).id;

test('one that is stopped leaves nothing behind', async () => {
  await server.services.store.installPiece(LONG);
  const id = await begin({ piece: 'long', toBeat: 90_000 });
  await until(async () => (await statusOf(id, 'long')).share > 0);
  await fetch(`${url}/exports/${id}`, { method: 'DELETE' });
  await until(async () => isOver(await statusOf(id, 'long')));
  expect(await statusOf(id, 'long')).toMatchObject({
    state: 'stopped',
    files: [],
    message: expect.stringMatching(/stopped.*Nothing of it was kept/) as string,
  });
  // The thread that wrote it takes a moment to end.
  await until(() => readdirSync(join(folder, 'exporting')).length === 0);
  expect(existsSync(join(folder, 'exports', id))).toBe(false);
});

/** A server that writes one file at a time, and the id of the long export that it is busy with. */
async function busyServer(): Promise<{ readonly small: TestServer; readonly long: string }> {
  const small = await startServer({ size: 1 });
  url = `${small.url}/api`;
  await small.services.sounds.put(stored, HASH, song.sounds[HASH]!);
  for (const piece of [song, LONG]) await small.services.store.installPiece(piece);
  const long = await begin({ piece: 'long', toBeat: 90_000 });
  await until(async () => (await statusOf(long, 'long')).state === 'running');
  return { small, long };
}

test('those beyond the number of cores wait, and are told how many come before them', async () => {
  const { long } = await busyServer();
  const [second, third] = [await begin({ what: 'stems' }), await begin({})];
  await until(async () => (await statusOf(third)).ahead === 2);
  expect([(await statusOf(second)).state, (await statusOf(second)).ahead, (await statusOf(third)).state]).toEqual([
    'waiting',
    0,
    'waiting',
  ]);
  await fetch(`${url}/exports/${long}`, { method: 'DELETE' });
  await until(async () => isOver(await statusOf(second)) && isOver(await statusOf(third)));
  expect([(await statusOf(second)).state, (await statusOf(third)).state]).toEqual(['done', 'done']);
});

test('a server killed while it writes a file: the next one lists it as stopped, has nothing of it, and can write it again', async () => {
  const data = newFolder();
  const serve = async (): Promise<{ readonly api: string; readonly child: ChildProcess }> => {
    const child = spawn(process.execPath, ['--import', 'tsx', join(__dirname, '..', 'index.ts')], {
      env: { ...process.env, ZEPHIRO_DATA: data, PORT: '0' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const said = await new Promise<string>((resolve) =>
      child.stdout!.once('data', (text: Buffer) => resolve(String(text))),
    );
    return { api: `${said.trim().split(' ').pop()!}/api`, child };
  };
  const listed = async (api: string): Promise<ExportStatus[]> =>
    (await (await fetch(`${api}/exports?piece=salt-pier`)).json()) as ExportStatus[];
  const begin = async (api: string): Promise<string> =>
    (
      (await (
        await fetch(`${api}/exports`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ ...ORDER, piece: 'salt-pier', toBeat: 64 }),
        })
      ).json()) as { id: string }
    ).id;
  const first = await serve();
  const id = await begin(first.api);
  while ((await listed(first.api))[0]!.share === 0) await new Promise((resolve) => setTimeout(resolve, 20));
  first.child.kill('SIGKILL');
  await new Promise((resolve) => first.child.once('exit', resolve));
  expect(readdirSync(join(data, 'exporting'))).toEqual([id]);
  const second = await serve();
  try {
    expect(await listed(second.api)).toMatchObject([
      { id, state: 'stopped', files: [], message: expect.stringMatching(/start it again/) },
    ]);
    expect([readdirSync(join(data, 'exporting')), readdirSync(join(data, 'exports'))]).toEqual([[], []]);
    const again = await begin(second.api);
    while (!isOver((await listed(second.api)).find((one) => one.id === again)!))
      await new Promise((resolve) => setTimeout(resolve, 100));
    expect((await listed(second.api))[0]).toMatchObject({
      id: again,
      state: 'done',
      files: [{ name: expect.stringMatching(/^Salt Pier - mix - /) as string }],
    });
  } finally {
    second.child.kill('SIGKILL');
  }
});

test('a disk that fills up while a file is written: it is said, nothing half-written is left or listed, and it can be started again', async () => {
  const { small, long } = await busyServer();
  const id = await begin({});
  await until(() => existsSync(join(small.folder, 'exporting', id)));
  // What the thread is about to write goes to a device that is full.
  symlinkSync('/dev/full', join(small.folder, 'exporting', id, '0.raw'));
  await fetch(`${url}/exports/${long}`, { method: 'DELETE' });
  await until(async () => isOver(await statusOf(id)));
  expect(await statusOf(id)).toMatchObject({
    state: 'failed',
    files: [],
    message: expect.stringMatching(/The disk is full/) as string,
  });
  expect([existsSync(join(small.folder, 'exporting', id)), existsSync(join(small.folder, 'exports', id))]).toEqual([
    false,
    false,
  ]);
  const again = await begin({});
  await until(async () => isOver(await statusOf(again)));
  expect(await statusOf(again)).toMatchObject({ state: 'done', files: [{ name: `Low tide - mix - ${TODAY}.wav` }] });
});

test('nothing to write, and a full disk, are said as such', async () => {
  const none = await post({ ...ORDER, what: 'prints', prints: [] });
  expect([none.status, ((await none.json()) as { detail: string }).detail]).toEqual([
    422,
    expect.stringMatching(/Choose some/),
  ]);
  const full = new GrowingFile('/dev/full');
  let problem: unknown;
  try {
    full.append(new Uint8Array(3 << 20));
  } catch (error) {
    problem = error;
  }
  expect(toProblem(problem)).toMatchObject({ status: 507, title: 'The disk is full' });
});

test('an archive comes back as another piece with the same sounds; a damaged one changes nothing', async () => {
  const zip = Buffer.from(await (await fetch(`${url}/pieces/song/archive`)).arrayBuffer());
  const read = (bytes: Buffer): Promise<Response> =>
    fetch(`${url}/archives`, {
      method: 'POST',
      body: new Uint8Array(bytes),
      headers: { 'content-type': 'application/zip' },
    });
  const answer = await read(zip);
  expect(answer.status).toBe(201);
  const { id } = (await answer.json()) as { id: string };
  const { piece } = (await (await fetch(`${url}/pieces/${id}`)).json()) as { piece: Piece };
  expect(piece).toEqual({ ...song, id, name: 'Low: tide? (from an archive)' });
  const count = (await server.services.store.listPieces()).length;
  const spoiled = Buffer.from(zip);
  spoiled.fill(0x55, zip.length >> 1, (zip.length >> 1) + 400);
  for (const bad of [Buffer.from('no zip'), zip.subarray(0, zip.length - 200), spoiled]) {
    const refused = await read(bad);
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      422,
      expect.stringMatching(/Nothing already stored was changed/),
    ]);
  }
  expect([(await server.services.store.listPieces()).length, readdirSync(join(folder, 'arriving'))]).toEqual([
    count,
    [],
  ]);
});
