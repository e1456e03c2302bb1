import fc from 'fast-check';
import { makeRandom } from '../dsp/random';
import { paramAtPosition } from '../params/resolve';
import { between } from '../testing';
import { effectOf, EFFECTS } from '../effects/catalogue';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Piece } from '../piece/piece';
import type { ParamValue } from '../params/param';
import { clipOf, RATE, scene, soundOf, targetOf, type Scene } from '../piece/testing';
import { awayFrom, engineOf, runEngine } from './testing';

const HOLDS = EFFECTS.filter(({ family }) => family === 'hold');
const SECONDS = 6;
/** Every sample tells its place, most exactly round one second: what is read can be told from what comes out. */
const STEP = 1e-6;
const ramp = soundOf(SECONDS, (i) => (i - RATE) * STEP);
const noise = soundOf(SECONDS, (i) => 0.4 * Math.sin(i * i * 0.0007));

/** Figures with which each kind sounds from its first sample to its last. */
const SOUNDING: Readonly<Record<string, Values>> = {
  stutter: { slice: 100 },
  backwards: { length: 100 },
  tapeStop: { direction: 'bend', time: 8000 },
  reorder: { window: 200, slice: 50, order: 'drawn' },
  cloud: { scatter: 100 },
};

type Values = Readonly<Record<string, ParamValue>>;

/** A track with one hold, held between two places in samples; the end is that of the piece when left out. */
function withHold(
  effect: string,
  values: Values,
  held: readonly (readonly [sample: number, on: boolean])[],
  { sound = ramp, bpm = 120, more = {} }: { sound?: Float32Array; bpm?: number; more?: Partial<Piece> } = {},
): Scene {
  const tempo = { bpm, beatsPerBar: 4 };
  const lane: Lane = {
    id: 'held',
    target: targetOf('t0', 'h', 'held'),
    unit: 'own',
    on: true,
    points: [[0, false] as const, ...held].map(([sample, on]) => ({
      beat: (sample * bpm) / (60 * RATE),
      value: on ? 1 : 0,
      shape: 'hold',
      bend: 0,
    })),
  };
  const chain = [newSlot('h', effect, 'neutral', values)];
  return scene([sound], [{ clips: [clipOf('a', 0, 0, SECONDS)], chain }], {
    tempo,
    lanes: [lane],
    lengthBeats: 64,
    ...more,
  });
}

function heard(made: Scene, seconds = SECONDS - 1): Float32Array {
  const engine = engineOf(made);
  engine.play(0);
  return runEngine(engine, seconds).left;
}

/** The place in the source that each sample was read at. */
const placesIn = (out: Float32Array): Float64Array => Float64Array.from(out, (x) => x / STEP + RATE);
const firstSound = (out: Float32Array): number => out.findIndex((x) => x !== 0);
const lastSound = (out: Float32Array): number => out.length - 1 - [...out].reverse().findIndex((x) => x !== 0);

describe.each(HOLDS.map(({ id }) => id))('%s', (id) => {
  test('passes the sound to the bit while it is not held', () => {
    const made = withHold(id, {}, [], { sound: noise });
    const without = {
      ...made,
      piece: { ...made.piece, lanes: [], tracks: made.piece.tracks.map((track) => ({ ...track, chain: [] })) },
    };
    expect(awayFrom(heard(made), heard(without))).toBe(0);
  });
});

describe.each(HOLDS.map(({ id }) => id))('%s', (id) => {
  test('sounds the same whatever was played before', () => {
    for (const { values } of effectOf(id).presets.slice(1, 4)) {
      const held: readonly (readonly [number, boolean])[] = [
        [1.5 * RATE, true],
        [3 * RATE, false],
      ];
      const made = withHold(id, values, held, { sound: noise });
      const engine = engineOf(made);
      engine.play(0);
      // Whole steps; and longer than it remembers.
      runEngine(engine, (3000 * 64) / RATE);
      engine.stop();
      runEngine(engine, (18_000 * 64) / RATE);
      engine.play(0);
      expect(awayFrom(runEngine(engine, 4).left, heard(made, 4))).toBe(0);
    }
  });
});

// A head that is not moved is silent, so scrub has no first sample.
describe.each(HOLDS.map(({ id }) => id).filter((id) => id !== 'scrub'))('%s', (id) => {
  test('starts and ends on the samples of the grid, whatever the tempo and wherever the hand', () => {
    const grids = [
      ['1/32', 1 / 8],
      ['1/16', 1 / 4],
      ['1/8', 1 / 2],
      ['1/4', 1],
      ['1/2', 2],
    ] as const;
    fc.assert(
      fc.property(
        between(61, 211),
        fc.constantFrom(...grids),
        fc.constantFrom(...grids),
        between(0.3, 1),
        between(0.05, 1.2),
        (bpm, [startsOn, startGrid], [endsOn, endGrid], from, seconds) => {
          const [press, release] = [Math.round(from * RATE), Math.round((from + seconds) * RATE)];
          const values = { ...SOUNDING[id], startsOn, endsOn, heard: 'whileHeld' };
          const out = heard(
            withHold(
              id,
              values,
              [
                [press, true],
                [release, false],
              ],
              { bpm, sound: noise },
            ),
            5,
          );
          const sampleOf = (line: number, grid: number): number => Math.round((line * grid * 60 * RATE) / bpm);
          const after = (sample: number, grid: number): number => {
            let line = 0;
            while (sampleOf(line, grid) < sample) line += 1;
            return sampleOf(line, grid);
          };
          const start = after(press, startGrid);
          const end = after(Math.max(release, start + 1), endGrid);
          expect(firstSound(out)).toBeGreaterThanOrEqual(start);
          expect(firstSound(out)).toBeLessThanOrEqual(start + 2);
          expect(lastSound(out)).toBeGreaterThanOrEqual(end - 2);
          expect(lastSound(out)).toBeLessThanOrEqual(end + 0.001 * RATE);
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('stutter', () => {
  test('turn n begins n slices from the start, to a hundredth of a sample, and seams leave no step', () => {
    fc.assert(
      fc.property(between(20, 300), fc.integer({ min: RATE, max: RATE + 500 }), (slice, press) => {
        const out = placesIn(heard(withHold('stutter', { slice }, [[press, true]]), 4));
        const frames = (slice / 1000) * RATE;
        for (let i = press + 60; i < out.length; i += 37) {
          const within = (i - press) % frames;
          if (within < 50 || within > frames - 2) continue;
          expect(Math.abs(out[i]! - (press - frames + within))).toBeLessThan(0.01);
        }
      }),
      { numRuns: 12 },
    );
  });

  test('taken from the start on, the first turn is the sound itself', () => {
    const press = RATE + 17;
    const out = placesIn(heard(withHold('stutter', { slice: 100, from: 'after' }, [[press, true]]), 3));
    const frames = 0.1 * RATE;
    for (let i = press + 60; i < 3 * RATE; i += 41) {
      const within = (i - press) % frames;
      if (within > 50 && within < frames - 2) expect(Math.abs(out[i]! - (press + within))).toBeLessThan(0.01);
    }
  });
});

test('backwards: sample n of a slice is sample N - n of what had just passed', () => {
  fc.assert(
    fc.property(between(30, 400), fc.integer({ min: RATE, max: RATE + 500 }), (length, press) => {
      const out = placesIn(heard(withHold('backwards', { length }, [[press, true]]), 4));
      const frames = (length / 1000) * RATE;
      for (let i = press + 60; i < press + 3 * frames; i += 37) {
        const slice = Math.floor((i - press) / frames);
        const n = i - press - slice * frames;
        if (n < 50 || n > frames - 2) continue;
        expect(Math.abs(out[i]! - (press + slice * frames - n))).toBeLessThan(0.01);
      }
    }),
    { numRuns: 12 },
  );
});

/** Zero crossings upwards in [from, to), between samples: what tells the pitch of a sine. */
function crossings(out: Float32Array, from: number, to: number): number[] {
  const found: number[] = [];
  for (let i = from + 1; i < to; i += 1)
    if (out[i - 1]! < 0 && out[i]! >= 0) found.push(i - 1 + out[i - 1]! / (out[i - 1]! - out[i]!));
  return found;
}

function hzOf(out: Float32Array, from: number, to: number): number {
  const found = crossings(out, from, to);
  return ((found.length - 1) * RATE) / (found[found.length - 1]! - found[0]!);
}

const sineOf = (hz: number): Float32Array => soundOf(SECONDS, (i) => 0.4 * Math.sin((2 * Math.PI * hz * i) / RATE));
const centsOff = (hz: number, wanted: number): number => Math.abs(1200 * Math.log2(hz / wanted));
const rms = (out: Float32Array, from: number, to: number): number =>
  Math.sqrt(out.subarray(from, to).reduce((sum, x) => sum + x * x, 0) / (to - from));

describe('tape stop', () => {
  test.each([
    ['stop', 0, 0.5],
    ['stop', 0.5, 0.25],
    ['stop', -0.5, Math.SQRT1_2],
    ['start', 0, 0.5],
    ['start', 0.5, 0.25],
    ['bend', 0, 0.4],
  ])(
    '%s by a curve of %s: in the middle of its time it turns at %s of its speed, to 5 cents',
    (direction, curve, speed) => {
      for (const time of [900, 1700]) {
        const press = RATE;
        const values = { direction, curve, time, depth: 0.6 };
        const out = heard(withHold('tapeStop', values, [[press, true]], { sound: sineOf(997) }), 4);
        const middle = Math.round(press + (time / 2000) * RATE);
        // Even to either side of the middle, so a slope of the speed cancels out.
        const around = Math.round(0.02 * RATE);
        const found = crossings(out, middle - around, middle + around);
        const at = found.slice(1).map((x, i) => ({ place: (x + found[i]!) / 2, hz: RATE / (x - found[i]!) }));
        const near = at.reduce((best, one) =>
          Math.abs(one.place - middle) < Math.abs(best.place - middle) ? one : best,
        );
        const before = at[at.indexOf(near) - 1] ?? near;
        const after = at[at.indexOf(near) + 1] ?? near;
        const slope = (after.hz - before.hz) / Math.max(1, after.place - before.place);
        expect(centsOff(near.hz + slope * (middle - near.place), 997 * speed)).toBeLessThan(5);
      }
    },
  );

  test('after a stop there is silence, or the sound as it is', () => {
    const press = RATE;
    const stopped = (after: string): Float32Array =>
      heard(withHold('tapeStop', { time: 300, after }, [[press, true]], { sound: noise }), 3);
    expect(rms(stopped('silence'), 2 * RATE, 3 * RATE)).toBe(0);
    expect(awayFrom(stopped('sound').subarray(2 * RATE), noise.subarray(2 * RATE, 3 * RATE))).toBeLessThan(1e-6);
  });
});

describe('slow motion', () => {
  test('at any speed a sine keeps its pitch to 5 cents and its level to 1 dB', () => {
    fc.assert(
      fc.property(between(0, 2), between(90, 3000), between(-12, 12), between(30, 200), (speed, hz, pitch, grain) => {
        const values = { speed, pitch, grain, catchEvery: 1000 };
        const out = heard(withHold('slowMotion', values, [[1.5 * RATE, true]], { sound: sineOf(hz) }), 4);
        expect(centsOff(hzOf(out, 2.6 * RATE, 3.9 * RATE), hz * 2 ** (pitch / 12))).toBeLessThan(5);
        const turn = Math.ceil(RATE / (hz * 2 ** (pitch / 12)));
        let [least, most] = [Infinity, 0];
        for (let at = 2.6 * RATE; at < 3.9 * RATE; at += turn) {
          const peak = out.subarray(at, at + 2 * turn).reduce((size, x) => Math.max(size, Math.abs(x)), 0);
          [least, most] = [Math.min(least, peak), Math.max(most, peak)];
        }
        expect(20 * Math.log10(most / least)).toBeLessThan(1);
      }),
      { numRuns: 15 },
    );
  });
});

test('reorder: the same roll gives the same order, another one another, and the drawn order is the one that is drawn', () => {
  const orders = (values: Values): string[] => {
    const out = placesIn(
      heard(withHold('reorder', { window: 400, slice: 50, order: 'thrown', ...values }, [[RATE, true]]), 3),
    );
    return Array.from({ length: 24 }, (_, k) => {
      const at = out[RATE + k * 2400 + 1200]!;
      return String(Math.floor((at - 0.6 * RATE) / 2400) + 1);
    });
  };
  expect(orders({ roll: 5 })).toEqual(orders({ roll: 5 }));
  expect(orders({ roll: 5 })).not.toEqual(orders({ roll: 6 }));
  expect(orders({ order: 'turned' }).slice(0, 9).join('')).toBe('876543218');
  const drawn = { order: 'drawn', place1: 3, place2: 3, place3: 8, place4: 1 };
  expect(orders(drawn).slice(0, 8).join('')).toBe('33815678');
});

test('cloud: as loud as what it is made of, within 3 dB, however dense, and never over the guard', () => {
  const source = soundOf(
    SECONDS,
    (i) => 0.2 * Math.sin(i * 0.05) + 0.15 * Math.sin(i * 0.11) + 0.1 * Math.sin(i * i * 0.0007),
  );
  fc.assert(
    fc.property(
      between(2, 120),
      between(10, 600),
      between(50, 900),
      between(0, 1),
      (density, size, scatter, feedback) => {
        const values = { density, size, scatter, feedback, spread: 0 };
        // Two grains a second are a second long, and reach 2.9 s back: all of it is sound.
        const out = heard(withHold('cloud', values, [[3 * RATE, true]], { sound: source }), 6.5);
        const level = rms(out, 4 * RATE, 6.5 * RATE) / rms(source, 0.8 * RATE, 3 * RATE);
        expect(Math.abs(20 * Math.log10(level))).toBeLessThan(3);
        expect(out.reduce((most, x) => Math.max(most, Math.abs(x)), 0)).toBeLessThanOrEqual(1);
      },
    ),
    { numRuns: 15 },
  );
});

test('chop: the gate\u2019s pattern, counted from the start of the hold', () => {
  const pattern = { rate: 8, length: 4, step1: 1, step2: 0, step3: 0.5, step4: 0, smooth: 2, open: 1 };
  const even = soundOf(SECONDS, () => 0.5);
  const press = RATE + 29;
  const out = heard(withHold('chop', pattern, [[press, true]], { sound: even }), 4);
  for (let step = 1; step < 16; step += 1) {
    const middle = press + Math.round((step + 0.5) * (RATE / 8));
    expect(out[middle]! / 0.5).toBeCloseTo([1, 0, 0.5, 0][step % 4]!, 5);
    expect(Math.abs(out[press + step * (RATE / 8) + 2]! - out[press + step * (RATE / 8) + 110]!)).toBeGreaterThan(0.1);
  }
});

test('scrub: silent while the head stands, and it plays what lies between two places while it goes from one to the other', () => {
  const made = withHold('scrub', { window: 1000, inertia: 40 }, [[1.5 * RATE, true]], { sound: noise });
  const place: Lane = {
    id: 'place',
    target: targetOf('t0', 'h', 'place'),
    unit: 'own',
    on: true,
    points: [
      { beat: 0, value: 0.2, shape: 'hold', bend: 0 },
      { beat: 4, value: 0.8, shape: 'hold', bend: 0 },
    ],
  };
  const out = heard({ ...made, piece: { ...made.piece, lanes: [...made.piece.lanes, place] } }, 4);
  expect(rms(out, 1.55 * RATE, 1.99 * RATE)).toBe(0);
  expect(rms(out, 2 * RATE, 2.2 * RATE)).toBeGreaterThan(0.05);
  expect(rms(out, 3 * RATE, 4 * RATE)).toBe(0);
});

test('live is recorded: what hands do at any time, written where the engine says that it acted, gives the same samples', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...HOLDS.map(({ id }) => id)),
      fc.constantFrom('free', '1/16'),
      fc.integer({ min: 37, max: 997 }),
      fc.array(between(0.05, 1.2), { minLength: 2, maxLength: 6 }),
      (id, grid, block, gaps) => {
        const values = { ...SOUNDING[id], startsOn: grid, endsOn: grid };
        const made = withHold(id, values, [], { sound: noise });
        const engine = engineOf({ ...made, piece: { ...made.piece, lanes: [] } });
        const index = effectOf(id).paramIds.indexOf('held');
        const live = new Float32Array(5 * RATE);
        let due = RATE;
        let count = 0;
        const hands: (readonly [number, boolean])[] = [];
        engine.play(0);
        for (let at = 0; at < live.length; at += block) {
          if (at >= due && count < gaps.length) {
            const to = count % 2 === 0 ? 1 : 0;
            engine.queue({ kind: 'hold', channel: 't0', slot: 'h', value: index, to, atSample: 0, tag: to });
            due = at + gaps[count]! * RATE;
            count += 1;
          }
          const n = Math.min(block, live.length - at);
          engine.process(live.subarray(at, at + n), new Float32Array(n), n);
          for (const { tag, sample } of engine.takeApplied() ?? []) hands.push([sample, tag === 1]);
        }
        expect(hands.map(([, on]) => on)).toEqual(gaps.slice(0, hands.length).map((_, i) => i % 2 === 0));
        expect(awayFrom(live, heard(withHold(id, values, hands, { sound: noise }), 5))).toBe(0);
      },
    ),
    { numRuns: 24 },
  );
});

test('ten thousand things done at random to all holds in a row stay finite and under the ceiling', () => {
  const random = makeRandom(20_261_130);
  const chain = HOLDS.map(({ id }) => newSlot(id, id, 'neutral'));
  const engine = engineOf(scene([noise], [{ clips: [clipOf('a', 0, 0, SECONDS)], chain }]));
  const hold = (slot: string, value: number, to: number): void =>
    engine.queue({ kind: 'hold', channel: 't0', slot, value, to, atSample: 0 });
  engine.play(0);
  let most = 0;
  for (let action = 0; action < 10_000; action += 1) {
    const effect = HOLDS[Math.floor(random() * HOLDS.length)]!;
    const isHand = random() < 0.4;
    const index = isHand ? effect.paramIds.indexOf('held') : Math.floor(random() * effect.paramIds.length);
    const edge = random();
    const at = edge < 0.15 ? 0 : edge > 0.85 ? 1 : random();
    hold(effect.id, index, paramAtPosition(effect.params[effect.paramIds[index]!]!, at));
    if (action % 2000 === 0) engine.play(0);
    const { left, right } = runEngine(engine, 0.003);
    for (const x of [...left, ...right]) {
      if (!Number.isFinite(x)) throw new Error(`not finite after action ${action}`);
      most = Math.max(most, Math.abs(x));
    }
  }
  expect([engine.caught, most > 0.1, most <= 1.0001]).toEqual([0, true, true]);
});

test.each([
  [121, 0],
  [251.3, 0.37],
  [187, 0.8],
])('holds start on the bar lines of the metre that is there, at %d BPM', (bpm, early) => {
  // Bars of 4/4 up to beat 4, of 6/8 up to 9.5, of 5/4 from there.
  const sections = [
    { id: 'a', name: 'A', beat: 4, metre: { beatsPerBar: 3, unit: 8 as const } },
    { id: 'b', name: 'B', beat: 9.5, metre: { beatsPerBar: 5, unit: 4 as const } },
  ];
  const samples = (beat: number): number => Math.round((beat * 60 * RATE) / bpm);
  for (const [press, line] of [
    [1 + early, 4],
    [4.1 + early, 7],
    [7.1 + early, 9.5],
    [3.9, 4],
    [9.4, 9.5],
  ] as const) {
    const values = { ...SOUNDING.stutter, startsOn: '1 bar', heard: 'whileHeld' };
    const held = [[samples(press), true]] as const;
    const out = heard(withHold('stutter', values, held, { bpm, sound: noise, more: { sections } }));
    expect([press, firstSound(out)]).toEqual([press, samples(line)]);
  }
});
