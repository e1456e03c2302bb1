import { clipOf, RATE, scene, soundOf } from '../piece/testing';
import fc from 'fast-check';
import { newSlot } from '../piece/edits/chain';
import type { Slot } from '../piece/piece';
import { roughness } from '../testing';
import { engineOf, peakIn, runEngine } from './testing';
import { compilePlan } from './compilePlan';
import { treat } from './treat';
import type { ParamValue } from '../params/param';

const wave = (hz: number, level = 0.4) =>
  Float32Array.from({ length: RATE }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / RATE));
const SOUND = [wave(220), wave(330)] as const;

const braided = (chains: readonly (readonly Slot[])[], values: Readonly<Record<string, ParamValue>> = {}): Slot => ({
  ...newSlot('braid', 'braid', 'neutral', values),
  strands: chains.map((chain, i) => ({ place: i + 1, name: `Strand ${i + 1}`, chain: [...chain] })),
});
const through = (chain: readonly Slot[], sound: readonly Float32Array[] = SOUND) =>
  treat({ sound, sampleRate: RATE, bpm: 120, chain, tail: { kind: 'seconds', seconds: 0.5 }, hear: 'mix' });
const gain = (id: string, db: number): Slot => newSlot(id, 'utility', 'neutral', { gain: db });
const apart = (a: ArrayLike<number>, b: ArrayLike<number>, factor = 1, shift = 0): number => {
  let most = 0;
  for (let i = shift; i < RATE - 64; i += 1) most = Math.max(most, Math.abs(a[i]! - factor * b[i - shift]!));
  return most;
};

test('untouched strands make up the whole, however it is parted', () => {
  const whole = { level1: 1, level2: 1 };
  for (const values of [
    {},
    { ...whole, input1: 'mid', input2: 'side' },
    { ...whole, input1: 'left', input2: 'right', pan1: -1, pan2: 1 },
  ]) {
    const out = through([braided([[], []], values)]);
    expect(apart(out.left, SOUND[0])).toBeLessThan(1e-6);
    expect(apart(out.right, SOUND[1])).toBeLessThan(1e-6);
  }
});

test('each strand treats its part alone, at its level and as late as it is aligned', () => {
  const half = 10 ** (-6 / 20);
  const out = through([braided([[], [gain('g', -6)]], { level1: 0, level2: 0.5, align2: 10 })]);
  expect(apart(out.left, SOUND[0], half * 0.5, 480)).toBeLessThan(1e-6);
  const side = through([braided([[]], { input1: 'side', level1: 1 })]);
  expect(apart(side.left, side.right, -1)).toBeLessThan(1e-7);
});

test('strands in strands and wet paths sound as the same effects in a row', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -20, max: 6 }), { minLength: 1, maxLength: 3 }), (levels) => {
      const inner = levels.reduce<Slot[]>(
        (chain, db, i) =>
          [braided([[gain(`g${i}`, db), ...chain]], { level1: 1 })].map((slot) => ({ ...slot, id: `b${i}` })),
        [],
      );
      const row = through(levels.map((db, i) => gain(`g${i}`, db)));
      expect(apart(through(inner).left, row.left)).toBeLessThan(1e-6);
      const onWet = through([
        { ...gain('first', levels[0]!), wetPath: levels.slice(1).map((db, i) => gain(`w${i}`, db)) },
      ]);
      expect(apart(onWet.left, row.left)).toBeLessThan(1e-6);
    }),
    { numRuns: 8 },
  );
});

test('a wet path treats the treated sound only', () => {
  const echo = (wetPath: Slot[]): Slot => ({
    ...newSlot('echo', 'echo', 'neutral', { balance: 'levels', dry: 1, wet: 0.5, timeL: 100, feedback: 0 }),
    wetPath,
  });
  const click = [Float32Array.from({ length: RATE }, (_, i) => (i === 0 ? 0.5 : 0))];
  const out = through([echo([gain('g', -12)])], click);
  expect(out.left[0]).toBeCloseTo(0.5, 6);
  expect(out.left[4800]).toBeCloseTo(0.25 * 10 ** (-12 / 20), 5);
});

test('strands one at a time: the chosen one takes the sound, the other rings out, and nothing clicks', () => {
  const chain = [newSlot('e', 'echo', 'neutral', { balance: 'levels', dry: 0, wet: 1, timeL: 250, feedback: 0.5 })];
  const { piece, sounds } = scene(
    [soundOf(3, (i) => 0.3 * Math.sin((2 * Math.PI * 220 * i) / RATE))],
    [
      {
        clips: [clipOf('c', 0, 0, 3)],
        chain: [braided([[], chain], { plays: 'one', chosen: 2, level1: 1, level2: 1 })],
      },
    ],
  );
  const engine = engineOf({ piece, sounds });
  engine.play(0);
  runEngine(engine, 1.5);
  const other = {
    ...piece,
    tracks: [{ ...piece.tracks[0]!, chain: [braided([[], chain], { plays: 'one', chosen: 1, level1: 0, level2: 1 })] }],
  };
  engine.setPlan(compilePlan(other));
  const out = runEngine(engine, 1);
  expect(roughness(out.left, 6)).toBeLessThan(0.01);
  expect(peakIn(out.left, 12_200, 23_800)).toBeGreaterThan(0.1);
  expect(peakIn(out.left, 36_200, 47_000)).toBeLessThan(peakIn(out.left, 12_200, 23_800) * 0.6);
});

test('laying, filling and taking out a strand while it plays neither clicks nor cuts what rings', () => {
  const echo = newSlot('e', 'echo', 'neutral', { balance: 'levels', dry: 0, wet: 1, timeL: 300, feedback: 0.6 });
  const { piece, sounds } = scene(
    [soundOf(6, (i) => (i < 2 * RATE ? 0.3 * Math.sin((2 * Math.PI * 220 * i) / RATE) : 0))],
    [{ clips: [clipOf('c', 0, 0, 6)], chain: [braided([[]], { level1: 1, level2: 1 })] }],
  );
  const engine = engineOf({ piece, sounds });
  engine.play(0);
  const play = (chains: Slot[][], seconds: number): Float32Array => {
    engine.setPlan(
      compilePlan({ ...piece, tracks: [{ ...piece.tracks[0]!, chain: [braided(chains, { level1: 1, level2: 1 })] }] }),
    );
    return runEngine(engine, seconds).left;
  };
  const parts = [play([[]], 0.5), play([[], []], 0.3), play([[], [echo]], 0.7), play([[]], 1.2)];
  const whole = Float32Array.from(parts.flatMap((part) => [...part]));
  expect(roughness(whole.subarray(0, 90_000), 6)).toBeLessThan(0.01);
  expect(peakIn(whole, 100_000, 110_000)).toBeGreaterThan(0.05);
});
