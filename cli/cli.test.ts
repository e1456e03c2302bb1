import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeRandom } from '../src/core/dsp/random';
import { compilePlan } from '../src/core/engine/compilePlan';
import { Engine } from '../src/core/engine/engine';
import { readWav } from '../src/core/formats/readWav';
import { writeWav } from '../src/core/formats/writeWav';
import { makeSaltPier } from '../src/core/sounds/saltPier';
import { at, cli, json, left, sound } from './testing';

const impulse = (i: number): number => (i === 0 ? 1 : 0);

test.each([44_100, 48_000, 96_000])(
  'process: a unit impulse at 90 BPM, 1/8d, feedback 0.5 repeats every 500.000 ms at %d Hz',
  async (rate) => {
    const chain = json('chain.json', {
      chain: [{ effect: 'echo', preset: 'neutral', params: { timeL: '1/8d', feedback: 0.5 } }],
    });
    expect(
      await cli(
        'process',
        sound('impulse.wav', rate, 1, impulse),
        at('out.wav'),
        '--chain',
        chain,
        '--bpm',
        '90',
        '--tail',
        '2',
        '--hear',
        'wet',
      ),
    ).toEqual({ code: 0, out: '', err: '' });
    const out = left('out.wav');
    for (let n = 1; n <= 5; n += 1) expect(20 * Math.log10(out[(n * rate) / 2]!)).toBeCloseTo((n - 1) * -6.0206, 2);
    const elsewhere = out.filter((x, i) => i % (rate / 2) !== 0 && x !== 0);
    expect(elsewhere.length).toBe(0);
  },
);

test('process: moves, events, tails and what is heard', async () => {
  const chain = json('echo.json', { chain: [{ effect: 'echo', params: { timeL: 100, feedback: 0.5 } }] });
  const steady = sound('steady.wav', 48_000, 2, () => 0.25);
  const line = (beat: number, value: number): object => ({ beat, value, shape: 'hold', bend: 0 });
  const moves = json('moves.json', { lanes: [{ effect: 0, param: 'input', points: [line(0, 0), line(2, 1)] }] });
  await cli('process', steady, at('moved.wav'), '--chain', chain, '--moves', moves, '--hear', 'wet', '--tail', '0');
  expect([left('moved.wav')[50_000], left('moved.wav').length]).toEqual([0, 96_000]);
  expect(left('moved.wav')[57_000]).toBeCloseTo(0.25, 3);
  const events = json('events.json', { events: [{ seconds: 0.5, effect: 0, param: 'wet', value: '-6 dB' }] });
  await cli(
    'process',
    steady,
    at('event.wav'),
    '--chain',
    chain,
    '--events',
    events,
    '--hear',
    'wet',
    '--tail',
    'auto',
  );
  expect(left('event.wav')[20_000]! / left('event.wav')[90_000]!).toBeCloseTo(
    (0.25 + 0.125 + 0.0625 + 0.03125) / (0.5 * 0.5012),
    1,
  );
  expect(Math.abs(left('event.wav').at(-1)!)).toBeGreaterThan(1e-4);
  await cli(
    'process',
    steady,
    at('difference.wav'),
    '--chain',
    chain,
    '--hear',
    'difference',
    '--bits',
    '16',
    '--rate',
    '44100',
  );
  expect(readWav(readFileSync(at('difference.wav'))).sampleRate).toBe(44_100);
});

test('process: a braid with strands, and effects on a wet sound alone', async () => {
  const tone = sound('tone.wav', 48_000, 1, (i) => 0.5 * Math.sin((2 * Math.PI * 1000 * i) / 48_000));
  const half = { effect: 'utility', params: { gain: -6.0206, wet: 1, dry: 0 } };
  const rms = async (chain: object[], name: string): Promise<number> => {
    expect(
      await cli('process', tone, at(`${name}.wav`), '--chain', json(`${name}.json`, { chain }), '--tail', '0'),
    ).toEqual({
      code: 0,
      out: '',
      err: '',
    });
    const out = left(`${name}.wav`).subarray(24_000);
    return Math.sqrt(out.reduce((sum, x) => sum + x * x, 0) / out.length);
  };
  const whole = 0.5 / Math.SQRT2;
  // Strands come back at half each: one as it is, one at half again.
  expect(
    (await rms(
      [{ effect: 'braid', params: { dry: 0, wet: 1 }, strands: [{ name: 'As it is', chain: [] }, { chain: [half] }] }],
      'braid',
    )) / whole,
  ).toBeCloseTo(0.75, 2);
  expect(
    (await rms([{ effect: 'utility', params: { dry: 0, wet: 1 }, wetPath: [half] }], 'wetPath')) / whole,
  ).toBeCloseTo(0.5, 2);
  expect(
    (
      await cli(
        'process',
        tone,
        at('no.wav'),
        '--chain',
        json('no.json', { chain: [{ effect: 'echo', strands: [{ chain: [] }] }] }),
      )
    ).err,
  ).toMatch(/Only a braid has strands/);
});

test('effects: every parameter with range, unit and default', async () => {
  const { effects } = JSON.parse((await cli('effects', '--json')).out) as {
    effects: {
      id: string;
      params: { id: string; kind: string; unit?: string; min?: number; max?: number; default: unknown; hint: string }[];
      presets: { id: string }[];
    }[];
  };
  const echo = effects.find((effect) => effect.id === 'echo')!;
  expect(echo.params.find((param) => param.id === 'feedback')).toMatchObject({
    kind: 'number',
    unit: 'ratio',
    min: 0,
    max: 1.2,
    default: 0.45,
  });
  expect(echo.params.map((param) => param.id)).toEqual(
    expect.arrayContaining(['timeL', 'timeR', 'linked', 'routing', 'dry', 'wet', 'hold', 'duck']),
  );
  expect(echo.params.every((param) => param.hint.length > 5)).toBe(true);
  expect(echo.presets.map((preset) => preset.id)).toContain('neutral');
});

test('measure: levels, loudness and arrivals', async () => {
  const measured = JSON.parse(
    (
      await cli(
        'measure',
        sound('m.wav', 48_000, 1, (i) => (i === 4800 ? 0.5 : i === 24_000 ? 0.25 : 0)),
        '--json',
      )
    ).out,
  ) as { peakDb: number[]; taps: { seconds: number; left: number }[]; loudness: { integratedLufs: number | null } };
  expect(measured.peakDb[0]).toBeCloseTo(-6.02, 2);
  expect(measured.taps.map((tap) => [tap.seconds, tap.left])).toEqual([
    [0.1, 0.5],
    [0.5, 0.25],
  ]);
});

test('render: the same samples as the engine in another process and in blocks of another size; bars and stems', async () => {
  const args = ['render', 'salt-pier', at('piece.wav'), '--from', '3', '--to', '5', '--tail', 'none'];
  const folders = ['--stems', at('stems'), '--data', at('none')];
  const started = spawnSync('npm', ['run', '-s', 'cli', '--', ...args, ...folders], { cwd: join(__dirname, '..') });
  expect(started.status).toBe(0);
  let sounds = 0;
  const demo = makeSaltPier(() => String((sounds += 1)).padStart(64, '0'));
  const plan = compilePlan(demo.piece);
  const engine = new Engine(48_000);
  for (const stored of demo.sounds) engine.addSound(stored.hash, stored.channels);
  engine.setPlan(plan);
  engine.play(Math.round((8 * 60 * 48_000) / 92));
  const rendered = left('piece.wav');
  const here = new Float32Array(rendered.length);
  const right = new Float32Array(rendered.length);
  for (let from = 0; from < here.length; from += 128)
    engine.process(
      here.subarray(from, from + 128),
      right.subarray(from, from + 128),
      Math.min(128, here.length - from),
    );
  const differs = here.findIndex((x, i) => x !== rendered[i]);
  expect([differs, here[differs], rendered[differs]]).toEqual([-1, undefined, undefined]);
  expect(readdirSync(at('stems'))).toHaveLength(5);
});

test.each([
  [2, ['teleport'], /unknown command 'teleport'/],
  [2, ['__proto__'], /unknown command '__proto__'/],
  [2, ['toString'], /unknown command 'toString'/],
  [2, ['constructor'], /unknown command 'constructor'/],
  [2, [], /Commands: effects, recipes/],
  [2, ['measure', 'a', 'b', '--json'], /too many arguments for 'measure'/],
  [2, ['process', 'a', 'b', 'c', '--chain', 'c'], /too many arguments for 'process'/],
  [2, ['process', 'a', 'b', '--chain', 'c', '--tail', ''], /--tail.*It takes auto/],
  [2, ['process', 'a', 'b', '--chain', 'c', '--seed', '3'], /unknown option '--seed'/],
  [2, ['measure'], /missing required argument 'FILE.wav'/],
  [2, ['process', 'a', 'b'], /--chain/],
  [2, ['process', 'a', 'b', '--chain', 'c', '--loud', '3'], /unknown option '--loud'/],
  [2, ['process', 'a', 'b', '--chain', 'c', '--bpm', '9000'], /--bpm.*It takes a number from 20 to 300/],
  [2, ['process', 'a', 'b', '--chain', 'c', '--bits', '12'], /--bits.*Allowed choices are 16, 24, 32f/],
  [1, ['process', 'none.wav', 'b', '--chain', 'c'], /none.wav cannot be read/],
  [1, ['measure', join(__dirname, 'index.ts'), '--json'], /no WAV/],
  [2, ['measure', 'x'], /add --json/],
])('exit %d for %j, with one clear line', async (code, args, message) => {
  const done = await cli(...args);
  expect([done.code, done.out]).toEqual([code, '']);
  expect(done.err).toMatch(message);
  expect(done.err).toMatch(/^[^\n]+\n$/);
});

test('bad data leaves what was there', async () => {
  writeFileSync(at('kept.wav'), 'precious');
  const chain = json('bad.json', { chain: [{ effect: 'echo', params: { feedback: 9 } }] });
  expect((await cli('process', sound('ok.wav', 48_000, 1, impulse), at('kept.wav'), '--chain', chain)).code).toBe(1);
  expect(readFileSync(at('kept.wav'), 'utf8')).toBe('precious');
  expect(existsSync(at('nowhere'))).toBe(false);
  expect(
    (await cli('process', at('ok.wav'), at('nowhere/out.wav'), '--chain', json('good.json', { chain: [] }))).code,
  ).toBe(1);
});

describe('files that say what cannot be', () => {
  const header = (change: (view: DataView) => void): string => {
    const bytes = writeWav({ sampleRate: 48_000, channels: [Float32Array.of(0, 0.5, 0.25)] }, '32f');
    change(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength));
    writeFileSync(at('odd.wav'), bytes);
    return at('odd.wav');
  };
  const chain = (): string =>
    json('delay.json', { chain: [{ effect: 'echo', params: { timeL: 100, feedback: 0.5 } }] });
  const said = async (...args: string[]): Promise<string> => {
    const { code, err } = await cli(...args);
    expect(err.trim().split('\n')).toHaveLength(1);
    return `${code}: ${err}`;
  };

  test('a rate of nothing, and samples that are no numbers', async () => {
    expect(
      await said(
        'process',
        header((view) => view.setUint32(24, 0, true)),
        at('o.wav'),
        '--chain',
        chain(),
      ),
    ).toMatch(/^1: .*0 Hz/);
    for (const bad of [NaN, Infinity, -Infinity])
      expect(
        await said(
          'measure',
          header((view) => view.setFloat32(view.byteLength - 4, bad, true)),
          '--json',
        ),
      ).toMatch(/^1: .*sample 3 of channel 1/);
  });

  test('more channels than two: which are used is said', async () => {
    writeFileSync(
      at('five.wav'),
      writeWav({ sampleRate: 48_000, channels: Array.from({ length: 5 }, () => new Float32Array(100)) }, '16'),
    );
    expect(await said('process', at('five.wav'), at('o.wav'), '--chain', chain())).toMatch(
      /^0: .*5 channels: the first two are used/,
    );
  });

  test.each([
    [
      '--moves',
      { lanes: [{ effect: 0, param: 'feedback', points: [{ beat: 0, value: 9, shape: 'hold', bend: 0 }] }] },
      /feedback goes from 0 to 1.2; 9/,
    ],
    [
      '--moves',
      { lanes: [{ effect: 0, param: 'constructor', points: [{ beat: 0, value: 0, shape: 'hold', bend: 0 }] }] },
      /not in the chain/,
    ],
    [
      '--moves',
      {
        lanes: [
          { effect: 0, param: 'feedback', unit: 'beats', points: [{ beat: 0, value: 1, shape: 'hold', bend: 0 }] },
        ],
      },
      /no time/,
    ],
    ['--events', { events: [{ seconds: 0, effect: 0, param: 'feedback', value: 7 }] }, /echo.feedback goes from/],
    ['--events', { events: [{ seconds: 0, effect: 0, param: 'hold', value: 0.5 }] }, /echo.hold does not take 0.5/],
    [
      '--events',
      { events: [{ seconds: 0, effect: 0, param: 'feedback', value: true }] },
      /echo.feedback does not take true/,
    ],
    ['--events', { events: [{ seconds: 0, effect: 0, param: '__proto__', value: 1 }] }, /not in the chain/],
  ])('%s %j', async (option, file, message) => {
    expect(
      await said(
        'process',
        sound('s.wav', 48_000, 0.1, impulse),
        at('o.wav'),
        '--chain',
        chain(),
        option,
        json('file.json', file),
      ),
    ).toMatch(message);
    expect((await cli('process', at('s.wav'), at('o.wav'), '--chain', chain(), option, at('file.json'))).code).toBe(1);
  });

  test('nothing in gives nothing out', async () => {
    expect(
      await cli('process', sound('none.wav', 48_000, 0, impulse), at('nothing.wav'), '--chain', chain(), '--tail', '2'),
    ).toEqual({ code: 0, out: '', err: '' });
    expect(left('nothing.wav')).toHaveLength(0);
    expect(JSON.parse((await cli('measure', at('nothing.wav'), '--json')).out)).toMatchObject({
      frames: 0,
      correlation: null,
      decaySeconds: { whole: null },
    });
  });

  test('measure: true peak, decay, correlation and what a single speaker loses', async () => {
    const rate = 48_000;
    const noise = makeRandom(3);
    const fall = Float32Array.from(
      { length: 2 * rate },
      (_, i) => (noise() - 0.5) * Math.pow(10, (-3 * i) / rate / 0.7),
    );
    writeFileSync(at('fall.wav'), writeWav({ sampleRate: rate, channels: [fall, fall.map((x) => -x)] }, '32f'));
    const found = JSON.parse((await cli('measure', at('fall.wav'), '--json')).out) as {
      correlation: number;
      monoLossDb: number;
      decaySeconds: { whole: number; octaves: { seconds: number }[] };
    };
    expect([found.correlation, found.monoLossDb]).toEqual([-1, -60]);
    for (const seconds of [found.decaySeconds.whole, ...found.decaySeconds.octaves.map((octave) => octave.seconds)])
      expect(Math.abs(seconds / 0.7 - 1)).toBeLessThan(0.1);
    // A tone at a quarter of the rate whose samples are 45 degrees beside its peaks.
    sound(
      'between.wav',
      rate,
      1,
      (i) => 0.5 * Math.min(1, i / 9600, (48_000 - i) / 9600) * Math.sin((Math.PI / 2) * i + Math.PI / 4),
    );
    const tone = JSON.parse((await cli('measure', at('between.wav'), '--json')).out) as {
      peakDb: number[];
      truePeakDb: number[];
    };
    expect(tone.peakDb[0]).toBeCloseTo(-9.03, 1);
    expect(tone.truePeakDb[0]).toBeCloseTo(-6.02, 1);
  });
});
