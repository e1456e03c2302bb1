import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { rmsOf } from '../src/core/analysis/levels';
import { applyPiecePatches } from '../src/core/piece/edit';
import { newSlot } from '../src/core/piece/edits/chain';
import { emptyPiece, newTrack, pieceSchema, type Piece } from '../src/core/piece/piece';
import { plainClip } from '../src/core/piece/plain';
import { RECIPES } from '../src/core/recipes/all';
import { DataFolder } from './pieces/dataFolder';
import { makeProgram } from './main';
import { madeSound } from './pieces/writePiece';
import { at, cli, json, left } from './testing';

const data = at('data');
const ok = async (...args: string[]): Promise<string> => {
  const { code, out, err } = await cli(...args);
  expect({ code, err, args }).toEqual({ code: 0, err: '', args });
  return out.trim();
};
const pieceFile = (name: string): Piece => pieceSchema.parse(JSON.parse(readFileSync(at(name), 'utf8')));

/**
 * A piece as the demo is, but small: a knock a beat on "Crates", an echo after it on "Kalimba". Synthesising the demo
 * itself takes half a minute within Jest.
 */
function writeSmallPier(): void {
  const rate = 48_000;
  const beat = 60 / 92;
  const knocks = Float32Array.from({ length: 12 * rate }, (_, i) => {
    const t = (i / rate) % beat;
    return 0.5 * Math.exp(-30 * t) * Math.sin(2 * Math.PI * 330 * t);
  });
  const { hash, wav } = madeSound([knocks], rate);
  mkdirSync(at('sounds'), { recursive: true });
  writeFileSync(at(`sounds/${hash}.wav`), wav);
  const piece: Piece = {
    ...emptyPiece('salt-pier', 'Salt Pier'),
    tempo: { bpm: 92, beatsPerBar: 4 },
    tracks: [
      newTrack('kalimba', 'Kalimba', {
        clips: [plainClip('k1', 'Pluck', hash, 0, 3)],
        chain: [newSlot('echo', 'echo', 'neutral', { timeL: 300, feedback: 0.5 })],
      }),
      newTrack('crates', 'Crates', { clips: [plainClip('c1', 'Knocks', hash, 8, 12)] }),
    ],
    sounds: { [hash]: { name: 'Knocks', frames: knocks.length, sampleRate: rate, channels: 1 } },
  };
  json('small.json', piece);
}

test('every command says what it is, has an example, and lists its own options', async () => {
  const programs = makeProgram().commands.flatMap((one) => (one.commands.length > 0 ? one.commands : [one]));
  for (const command of programs) {
    const path = command.parent?.name() === 'cli' ? [command.name()] : [command.parent!.name(), command.name()];
    const help = await ok(...path, '--help');
    expect(help).toContain(command.description().slice(0, 30));
    expect(help).toMatch(/Example:\n {2}npm run -s cli -- /);
    expect(help).toContain(path.join(' '));
  }
});

describe('a piece between file, archive and data folder', () => {
  test('is the same by every way, with its sounds', async () => {
    writeSmallPier();
    await ok('export', at('small.json'), at('pier.zip'), '--data', data);
    expect(await ok('import', at('pier.zip'), '--data', data)).toBe('salt-pier');
    await ok('export', 'Salt Pier', at('pier.json'), '--data', data);
    const piece = pieceFile('pier.json');
    expect(readdirSync(at('sounds')).sort()).toEqual(
      Object.keys(piece.sounds)
        .map((hash) => `${hash}.wav`)
        .sort(),
    );
    const listed = JSON.parse(await ok('piece', 'list', '--data', data, '--json')) as { pieces: { id: string }[] };
    expect(listed.pieces.map(({ id }) => id)).toEqual(['salt-pier']);
    expect(JSON.parse(await ok('piece', 'show', at('pier.zip'), '--json'))).toEqual(piece);
    await ok('render', at('pier.json'), at('a.wav'), '--from', '1', '--to', '1.5', '--tail', 'none');
    await ok('render', at('pier.zip'), at('b.wav'), '--from', '1', '--to', '1.5', '--tail', 'none');
    expect(readFileSync(at('a.wav')).equals(readFileSync(at('b.wav')))).toBe(true);
  });

  test('one whose id is taken comes in as another', async () => {
    const id = await ok('import', at('pier.json'), '--data', data);
    expect(id).not.toBe('salt-pier');
    expect(await ok('piece', 'show', id, '--data', data)).toContain('Salt Pier (from an archive)');
  });

  test('a file with other sounds than it says is refused, and nothing of it is stored', async () => {
    const piece = pieceFile('pier.json');
    const [hash, info] = Object.entries(piece.sounds)[0]!;
    const other = madeSound([new Float32Array(4800)], 48_000);
    const folder = at('other-sounds');
    mkdirSync(folder);
    const into = ['--data', at('other-data'), '--sounds', folder];
    const cases: [bytes: Uint8Array, said: Partial<typeof info>, RegExp][] = [
      [other.wav, {}, /does not match/],
      [readFileSync(at(`sounds/${hash}.wav`)), { frames: 5 }, /its frames is \d+, not 5/],
      [readFileSync(at(`sounds/${hash}.wav`)), { sampleRate: 44_100 }, /its sampleRate is 48000, not 44100/],
    ];
    for (const [bytes, said, message] of cases) {
      writeFileSync(join(folder, `${hash}.wav`), bytes);
      const file = json('claims.json', { ...piece, sounds: { ...piece.sounds, [hash]: { ...info, ...said } } });
      const done = await cli('import', file, ...into);
      expect([done.code, done.err]).toEqual([1, expect.stringMatching(message)]);
      expect(existsSync(at('other-data'))).toBe(false);
    }
  });

  test('bars are those of its metres: a section may have another', async () => {
    const sections = [{ id: 's', name: 'Waltz', beat: 4, metre: { beatsPerBar: 3, unit: 4 as const } }];
    const waltz = json('waltz.json', { ...pieceFile('pier.json'), lengthBeats: 16, sections });
    expect(await ok('piece', 'show', waltz)).toContain('92 BPM, 4/4, 3/4, 5 bars');
    await ok('render', waltz, at('waltz.wav'), '--from', '2', '--to', '3', '--tail', 'none');
    expect(left('waltz.wav').length).toBe(Math.round((3 * 60 * 48_000) / 92));
  });

  test('a new one begins from a template', async () => {
    const id = await ok('piece', 'new', 'Slack water', '--template', 'live', '--bpm', '104.5', '--data', data);
    const shown = await ok('piece', 'show', 'slack WATER', '--data', data);
    expect(shown).toContain(`Slack water (${id})\n104.5 BPM`);
    expect(shown).toMatch(/Main output: effects: Stutter, Tape stop/);
  });

  test('what is wrong is one line, and nothing is written', async () => {
    const broken = json('broken.json', { version: 7 });
    writeFileSync(at('odd.csv'), 'lane,beat,value\nDrums / Echo / Feedback,0,0.5\nDrums / Echo / Mix,0,0.5\n');
    const cases: [number, string[], RegExp][] = [
      [1, ['piece', 'show', broken], /damaged at id/],
      [1, ['piece', 'show', 'nothing', '--data', data], /no piece "nothing" in the data folder/],
      [1, ['piece', 'list', '--data', at('none')], /no pieces in/],
      [1, ['import', at('absent.zip'), '--data', data], /no such file/],
      [2, ['import', at('pier.wav'), '--data', data], /has to end with/],
      [2, ['export', at('pier.json'), at('pier.txt')], /has to end with/],
      [2, ['piece', 'new', '   ', '--data', data], /1 to 120 characters/],
      [2, ['piece', 'new', 'x'.repeat(121), '--data', data], /1 to 120 characters/],
      [1, ['piece', 'new', 'Nowhere', '--data', at('pier.json')], /A file or a folder could not be used/],
      [1, ['render', at('pier.json'), at('x.wav'), '--stems', at('pier.json/stems')], /could not be (used|written)/],
      [1, ['moves', 'read', at('pier.json'), at('odd.csv'), at('x.zip')], /No lane .* fits this piece; nothing was/],
      [1, ['import', json('lost.json', pieceFile('pier.json')), '--sounds', at('none'), '--data', data], /is missing/],
      [1, ['print', at('pier.json'), at('x.wav'), '--channel', 'Drums'], /no channel "Drums". There are: Kalimba/],
      [1, ['print', at('pier.json'), at('x.wav'), '--channel', 'Crates', '--from', '3', '--to', '2'], /is empty/],
      [2, ['recipe', 'constructor', at('pier.json'), at('x.zip'), '--track', 'Crates'], /no recipe "constructor"/],
      [1, ['recipe', 'riser', at('pier.json'), at('x.zip'), '--track', 'main'], /no track/],
      [1, ['recipe', 'riser', at('pier.json'), at('x.zip'), '--track', 'Crates', '--set', 'climb=99'], /0 to 36|\+36/],
      [
        1,
        ['recipe', 'riser', at('pier.json'), at('x.zip'), '--track', 'Crates', '--set', '__proto__=1'],
        /no parameter/,
      ],
      [2, ['recipe', 'riser', at('pier.json'), at('x.zip'), '--track', 'Crates', '--set', 'climb'], /NAME=VALUE/],
      [2, ['recipe', 'riser', at('pier.json'), '--track', 'Crates', '--data', at('none')], /OUT is missing/],
      [1, ['moves', 'write', at('pier.json'), at('x.csv'), '--channel', 'Crates'], /no moves/],
      [2, ['moves', 'write', at('pier.json'), at('x.txt')], /has to end with .csv or .mid/],
    ];
    writeFileSync(at('notes.zip'), 'no archive');
    cases.push([1, ['import', at('notes.zip'), '--data', data], /This is no archive/]);
    for (const [code, args, message] of cases) {
      const done = await cli(...args);
      expect([args, done.code, done.out]).toEqual([args, code, '']);
      expect(done.err).toMatch(message);
      expect(done.err).toMatch(/^[^\n]+\n$/);
    }
    for (const name of ['x.zip', 'x.wav', 'x.csv', 'x.txt']) expect(existsSync(at(name))).toBe(false);
  });
});

describe('recipes', () => {
  test('are listed with their settings', async () => {
    const { recipes } = JSON.parse(await ok('recipes', '--json')) as {
      recipes: { id: string; params: { id: string; hint: string }[] }[];
    };
    expect(recipes.map(({ id }) => id)).toEqual(['swell', ...RECIPES.map(({ id }) => id)]);
    expect(recipes.every(({ params }) => params.every(({ hint }) => hint.length > 5))).toBe(true);
  });

  test('one without OUT is saved in the data folder, and its history takes it back', async () => {
    const before = DataFolder.use(data, ({ pieces }) => pieces.read('salt-pier'));
    await ok('recipe', 'riser', 'salt-pier', '--data', data, '--track', 'Crates', '--from', '5', '--to', '7');
    const after = DataFolder.use(data, ({ pieces }) => pieces.read('salt-pier'));
    expect(after.revision).toBe(before.revision + 1);
    const added = after.piece.tracks.at(-1)!;
    expect([added.name, added.clips[0]!.start]).toEqual(['Riser', 16]);
    expect(existsSync(join(data, 'sounds', `${added.clips[0]!.sound}.wav`))).toBe(true);
    const last = after.history.entries[after.history.cursor - 1]!;
    expect(last.label).toBe('Riser: Crates');
    expect(applyPiecePatches(after.piece, last.backward)).toEqual(before.piece);
  });

  test.each(['Octave layer', 'lastHit', 'FROZEN BED'])('%s is made of a track, by id or by name', async (word) => {
    const args = ['--track', 'Crates', '--from', '5', '--to', '5.5'];
    const label = await ok('recipe', word, at('pier.json'), at('made.json'), ...args);
    expect(label).toMatch(/: Crates$/);
    const [before, after] = [pieceFile('pier.json'), pieceFile('made.json')];
    expect(after.tracks.length + Object.keys(after.sounds).length + after.lanes.length).toBeGreaterThan(
      before.tracks.length + Object.keys(before.sounds).length + before.lanes.length,
    );
    for (const hash of Object.keys(after.sounds)) expect(existsSync(at(`sounds/${hash}.wav`))).toBe(true);
  });

  test('swells grow into the hits of the stretch', async () => {
    const args = ['--track', 'Crates', '--from', '5', '--to', '5.5', '--set', 'length=beat'];
    expect(await ok('recipe', 'reverse swells', at('pier.json'), at('swells.json'), ...args)).toMatch(/Make \d swells/);
    const { clips } = pieceFile('swells.json').tracks.at(-1)!;
    expect(clips.length).toBeGreaterThan(1);
    expect(clips.every(({ reversed, start }) => reversed && start >= 15 && start < 18)).toBe(true);
  });
});

test('a print is what the channel plays, and lies on the Shelf where it is asked to', async () => {
  const args = ['--channel', 'kalimba', '--clip', pieceFile('pier.json').tracks[0]!.clips[0]!.name, '--tail', '1'];
  await ok('print', 'salt-pier', at('mix.wav'), ...args, '--data', data);
  await ok('print', 'salt-pier', at('dry.wav'), ...args, '--part', 'dry', '--data', data);
  await ok('print', 'salt-pier', at('wet.wav'), ...args, '--part', 'wet', '--data', data, '--keep', '--goes', 'track');
  const [mix, dry, wet] = ['mix.wav', 'dry.wav', 'wet.wav'].map(left) as [Float32Array, Float32Array, Float32Array];
  expect(rmsOf(wet)).toBeGreaterThan(0.001);
  // The echo's own mix adds dry and wet by fixed gains: what is left is made of both.
  expect(rmsOf(mix)).toBeGreaterThan(rmsOf(wet));
  expect(mix.length).toBe(dry.length);
  const { piece } = DataFolder.use(data, ({ pieces }) => pieces.read('salt-pier'));
  const kept = piece.prints.at(-1)!;
  expect(kept.from).toMatchObject({ channelName: 'Kalimba', part: 'wet', tail: '1 bar' });
  expect(piece.tracks.at(-1)!.clips.map(({ sound }) => sound)).toEqual([kept.sound]);
});

test.each(['csv', 'mid'])('moves go out as %s and come back in', async (kind) => {
  const args = ['recipe', 'sweep', at('pier.json'), at('swept.json'), '--track', 'Crates', '--from', '3', '--to', '5'];
  await ok(...args);
  const swept = pieceFile('swept.json');
  const file = at(`moves.${kind}`);
  expect(await ok('moves', 'write', at('swept.json'), file, '--channel', 'Crates')).toMatch(/^\d+ lanes? written/);
  const without = json('without.json', { ...swept, lanes: [] });
  expect(await ok('moves', 'read', without, file, at('back.json'))).toMatch(/^\d+ lanes? imported/);
  const back = pieceFile('back.json').lanes;
  expect(back.map(({ target }) => target)).toEqual(swept.lanes.map(({ target }) => target));
  back.forEach(({ points }, i) =>
    points.forEach((point, k) => {
      const was = swept.lanes[i]!.points[k]!;
      expect(Math.abs(point.beat - was.beat)).toBeLessThan(1 / 960);
      expect(Math.abs(point.value / was.value - 1)).toBeLessThan(1e-3);
    }),
  );
});
