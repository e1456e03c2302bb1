import { clipOf, echoSlot, laneOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { makeRandom } from '../dsp/random';
import { effectOf } from '../effects/catalogue';
import { loudness } from '../analysis/loudness';
import type { Listening } from './listening';
import { compilePlan } from './compilePlan';
import { roughness } from '../testing';
import { awayFrom, engineOf, peakIn, runEngine } from './testing';

const SINE = soundOf(8, (i) => 0.4 * Math.sin((2 * Math.PI * 220 * i) / RATE));
const BURST = soundOf(
  0.25,
  (i) => 0.5 * Math.sin((2 * Math.PI * 600 * i) / RATE) * Math.min(1, i / 500, (12_000 - i) / 500),
);
const voice = (values: Parameters<typeof echoSlot>[1] = {}, wave = SINE): Scene =>
  scene([wave], [{ clips: [clipOf('c', 0, 0, wave.length / RATE)], chain: [echoSlot('e', values)] }]);

function played(from: Scene, seconds: number, listening?: Listening): { left: Float32Array; right: Float32Array } {
  const engine = engineOf(from);
  if (listening) engine.listen(listening);
  engine.play(0);
  return runEngine(engine, seconds);
}

test('blocks of any size give the same bits', () => {
  const busy = voice(
    { timeL: '1/8d', feedback: 0.7, wowDepth: 0.5, filter: 'low', drive: 9, diffusion: 0.4, duck: 9 },
    SINE,
  );
  const moving = {
    ...busy,
    piece: {
      ...busy.piece,
      lanes: [
        laneOf('t0', 'e', 'feedback', [
          [0, 0.1],
          [4, 1.1],
          [8, 0.2],
        ]),
        laneOf('t0', null, 'pan', [
          [0, -1],
          [6, 1],
        ]),
      ],
    },
  };
  const [first, ...others] = [128, 1, 64, 100, 4096].map((block) => {
    const engine = engineOf(moving);
    engine.play(0);
    return runEngine(engine, 2, block);
  });
  for (const other of others)
    expect([awayFrom(first!.left, other.left), awayFrom(first!.right, other.right)]).toEqual([0, 0]);
});

describe('clips and channels', () => {
  test('a clip sounds at its sample, with its offset, gain and fades', () => {
    const ramp = soundOf(1, (i) => i / RATE);
    const out = played(
      scene([ramp], [{ clips: [clipOf('c', 0, 1, 0.25, { offsetSeconds: 0.5, gain: 0.5, fadeInSeconds: 0.01 })] }]),
      1,
    );
    expect(peakIn(out.left, 0, 24_000)).toBe(0);
    expect(out.left[24_000 + 480]).toBeCloseTo(0.5 * (0.5 + 0.01), 6);
    expect(out.left[24_000 + 240]).toBeCloseTo(0.25 * (0.5 + 0.005), 6);
    expect(peakIn(out.left, 36_000)).toBe(0);
  });

  test('pan, level, mute and solo', () => {
    const two = (a: object, b: object): Scene =>
      scene(
        [SINE],
        [
          { clips: [clipOf('a', 0, 0, 8)], ...a },
          { clips: [clipOf('b', 0, 0, 8)], ...b },
        ],
      );
    const level = (s: Scene): number[] => {
      const out = played(s, 0.5);
      return [peakIn(out.left, 12_000), peakIn(out.right, 12_000)].map((peak) => Math.round(peak * 1000) / 1000);
    };
    expect(level(two({ pan: -1 }, { mute: true }))).toEqual([0.4, 0]);
    expect(level(two({ gain: 0.5 }, { solo: true, pan: 1 }))).toEqual([0, 0.4]);
    expect(level(two({ gain: 0.5 }, { gain: 0.25 }))).toEqual([0.3, 0.3]);
  });

  test('the loop goes round without a gap or a click', () => {
    const cosine = soundOf(2, (i) => 0.5 * Math.cos((2 * Math.PI * 220 * i) / RATE));
    const from = scene([cosine], [{ clips: [clipOf('c', 0, 0, 2)] }], { loop: { on: true, start: 0.2, end: 1.3 } });
    const out = played(from, 2);
    expect(out.left[31_200 + 6000]).toBeCloseTo(cosine[4800 + 6000]!, 6);
    let step = 0;
    for (let i = 200; i < out.left.length; i += 1) step = Math.max(step, Math.abs(out.left[i]! - out.left[i - 1]!));
    expect(step).toBeLessThan(0.025);
  });

  test('nothing leaves above full scale, and the limiter says so', () => {
    const engine = engineOf(
      scene(
        [SINE],
        [0, 1, 2, 3].map((n) => ({ clips: [clipOf(`c${n}`, 0, 0, 8)], gain: 2 })),
      ),
    );
    engine.play(0);
    expect(peakIn(runEngine(engine, 1).left)).toBeLessThanOrEqual(1);
    expect(engine.takeLimiterGain()).toBeLessThan(0.4);
  });
});

describe('tails and state', () => {
  test('what is far below hearing leaves as nothing, and never as a denormal', () => {
    const falling = soundOf(1, (i) => Math.pow(10, -20 - (25 * i) / RATE));
    const { left } = played(scene([falling], [{ clips: [clipOf('c', 0, 0, 1)] }]), 1);
    expect(left.some((x) => x > 0 && x < 1e-28)).toBe(true);
    expect(left.every((x) => x === 0 || x >= 0.99e-30)).toBe(true);
    expect(left.lastIndexOf(0)).toBe(left.length - 1);
  });

  test('a tail rings on after stop, and through an edit of the piece', () => {
    const from = voice({ timeL: 250, feedback: 0.5 }, BURST);
    const engine = engineOf(from);
    engine.play(0);
    runEngine(engine, 0.4);
    engine.stop();
    engine.setPlan(
      compilePlan({
        ...from.piece,
        tracks: from.piece.tracks.map((track) => ({ ...track, name: 'Renamed', pan: 0.1 })),
      }),
    );
    expect(peakIn(runEngine(engine, 0.5).left)).toBeGreaterThan(0.2);
    expect(engine.playing).toBe(false);
  });

  test('a silent effect sleeps and wakes as if it had been awake', () => {
    const late = scene(
      [BURST],
      [
        {
          clips: [clipOf('c', 0, 60, 0.25)],
          chain: [echoSlot('e', { timeL: 200, feedback: 0.6, wowDepth: 1, wowRate: 0.7 })],
        },
      ],
    );
    const asleep = engineOf(late);
    asleep.play(0);
    runEngine(asleep, 30);
    const awake = engineOf(late);
    awake.play(30 * RATE);
    expect(awayFrom(runEngine(asleep, 2).left, runEngine(awake, 2).left)).toBeLessThan(1e-6);
  });

  test('a fault in an effect is silenced, counted and healed', () => {
    const engine = engineOf(
      voice(
        { timeL: 20, feedback: 0.5 },
        soundOf(1, (i) => (i === 5000 ? NaN : 0.1 * Math.sin(i / 20))),
      ),
    );
    engine.play(0);
    const out = runEngine(engine, 1);
    expect(out.left.every(Number.isFinite)).toBe(true);
    expect(engine.caught).toBeGreaterThan(0);
    expect(peakIn(out.left, 40_000)).toBeGreaterThan(0.05);
  });
});

describe('hands and moves', () => {
  test('a gesture with a sample time takes hold at that sample’s step, and a lane gives way to it', () => {
    const from = voice({ timeL: 20, feedback: 0, dry: 0 });
    const piece = { ...from.piece, lanes: [laneOf('t0', 'e', 'input', [[0, 1]])] };
    const engine = engineOf({ ...from, piece });
    const value = effectOf('echo').paramIds.indexOf('input');
    engine.play(0);
    engine.queue({ kind: 'hold', channel: 't0', slot: 'e', value, to: 0, atSample: 24_000 });
    const held = runEngine(engine, 1).left;
    expect(peakIn(held, 20_000, 24_500)).toBeGreaterThan(0.39);
    expect(peakIn(held, 30_000)).toBeLessThan(0.001);
    engine.queue({ kind: 'release', channel: 't0', slot: 'e', value, to: 0, atSample: 0 });
    expect(peakIn(runEngine(engine, 0.5).left, 12_000)).toBeGreaterThan(0.39);
  });

  test('a lane of level follows its line', () => {
    const from = scene([soundOf(4, () => 0.5)], [{ clips: [clipOf('c', 0, 0, 4)] }]);
    const out = played(
      {
        ...from,
        piece: {
          ...from.piece,
          lanes: [
            laneOf('t0', null, 'gain', [
              [0, 1],
              [1, 1],
              [1.001, 0.125],
              [4, 0.125],
            ]),
          ],
        },
      },
      1.5,
    );
    expect(out.left[20_000]).toBeCloseTo(0.5, 5);
    expect(out.left[40_000]).toBeCloseTo(0.0625, 5);
  });
});

describe('comparing', () => {
  const from = voice({ balance: 'mix', mix: 0.4, timeL: 100, feedback: 0.3 });
  const hear = (what: Listening['hear']): Float32Array =>
    played(from, 1, { channel: 't0', slot: 'e', hear: what, matched: false }).left;

  test('mix is dry and wet together, the difference is mix less the untreated sound', () => {
    const [mix, wet, dry, difference] = [hear('mix'), hear('wet'), hear('dry'), hear('difference')];
    const g = Math.cos((0.4 * Math.PI) / 2);
    let worst = 0;
    for (let i = 12_000; i < mix.length; i += 1) {
      worst = Math.max(
        worst,
        Math.abs(mix[i]! - (wet[i]! + g * dry[i]!)),
        Math.abs(difference[i]! - (mix[i]! - dry[i]!)),
        Math.abs(dry[i]! - SINE[i]!),
      );
    }
    expect(worst).toBeLessThan(1e-6);
  });

  test('holding dry anywhere plays the whole piece untreated', () => {
    expect(
      awayFrom(
        played(from, 1, { channel: null, slot: null, hear: 'dry', matched: false }).left.subarray(4000),
        SINE.subarray(4000, RATE),
      ),
    ).toBe(0);
  });

  test('matched, the treated sound is as loud as the untreated, and the gain is told', () => {
    const noise = makeRandom(5);
    const loud = voice(
      { timeL: 40, feedback: 0.6, wet: 1.8 },
      soundOf(12, () => 0.1 * (noise() - 0.5)),
    );
    const engine = engineOf(loud);
    engine.listen({ channel: 't0', slot: 'e', hear: 'mix', matched: true });
    engine.play(0);
    const out = runEngine(engine, 11.5);
    const tail = (samples: Float32Array): number =>
      loudness([samples.subarray(8 * RATE, 11.5 * RATE)], RATE).integrated;
    expect(Math.abs(tail(out.left) - tail(loud.sounds.values().next().value![0]!))).toBeLessThan(0.5);
    expect(engine.matcher.gainDb).toBeLessThan(-3);
  });
});

describe('no clicks', () => {
  const zigzag = (low: number, high: number): (readonly [number, number])[] =>
    Array.from({ length: 40 }, (_, i) => [3 + i * 0.125, i % 2 === 0 ? low : high] as const);

  test.each([
    ['feedback', 0, 1],
    ['mix', 0, 1],
    ['input', 0, 1],
    ['trim', 0.2, 1],
    ['width', 0, 2],
    ['cutoff', 200, 12_000],
  ] as const)('%s ridden from end to end eight times a second makes no step', (param, low, high) => {
    const from = voice({ balance: 'mix', timeL: 120, feedback: 0.4, filter: 'low', change: 'crossfade' });
    const out = played({ ...from, piece: { ...from.piece, lanes: [laneOf('t0', 'e', param, zigzag(low, high))] } }, 4);
    expect(roughness(out.left)).toBeLessThan(0.01);
  });

  test.each(['crossfade', 'glide'] as const)(
    'time ridden from 41 ms to 700 ms with %s makes no step beyond what the bent sine explains',
    (change) => {
      const from = voice({ balance: 'mix', mix: 1, timeL: 41, feedback: 0, change });
      const out = played(
        { ...from, piece: { ...from.piece, lanes: [laneOf('t0', 'e', 'timeL', zigzag(41, 700))] } },
        4,
      );
      let step = 0;
      for (let i = 72_001; i < out.left.length; i += 1)
        step = Math.max(step, Math.abs(out.left[i]! - out.left[i - 1]!));
      const sineStep = 0.4 * 2 * Math.sin((Math.PI * 220) / RATE);
      expect(step).toBeLessThan(change === 'glide' ? 3.05 * sineStep : 1.6 * sineStep);
      if (change === 'crossfade') expect(roughness(out.left)).toBeLessThan(0.01);
    },
  );

  test('switching an effect off and on, and muting, make no step', () => {
    const from = voice({ timeL: 120, feedback: 0.4 });
    const engine = engineOf(from);
    engine.play(0);
    const parts: number[] = Array.from(runEngine(engine, 1.5).left);
    for (let turn = 0; turn < 8; turn += 1) {
      const on = turn % 2 === 1;
      engine.setPlan(
        compilePlan({
          ...from.piece,
          tracks: from.piece.tracks.map((track) => ({
            ...track,
            mute: turn > 3 && !on,
            chain: track.chain.map((slot) => ({ ...slot, on: turn > 3 || on })),
          })),
        }),
      );
      parts.push(...runEngine(engine, 0.25).left);
    }
    expect(roughness(Float32Array.from(parts))).toBeLessThan(0.01);
  });
});
