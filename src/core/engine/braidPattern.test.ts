import fc from 'fast-check';
import { MAX_STEPS, PATTERN_ORDERS, STEP_NOTES, stepBeats, strandAtStep } from '../effects/braid/pattern';
import { beatsToSamples } from '../music/tempo';
import type { ParamValue } from '../params/param';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Slot } from '../piece/piece';
import { clipOf, laneOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { tempoOf } from '../piece/tempoOf';
import { awayFrom, engineOf, runEngine } from './testing';

type Values = Readonly<Record<string, ParamValue>>;

const LEVEL = 0.25;
const SECONDS = 4;
const steady = soundOf(SECONDS + 1, () => LEVEL);
/** By how much each strand turns the sound down: which one is heard can be read from the level. */
const DB = [0, -3, -6, -9];
const FACTORS = DB.map((db) => 10 ** (db / 20));
const OPEN = { level1: 1, level2: 1, level3: 1, level4: 1 };

const patterned = (
  values: Values,
  chain = (i: number): Slot[] => [newSlot(`g${i}`, 'utility', 'neutral', { gain: DB[i]! })],
): Slot => ({
  ...newSlot('b', 'braid', 'neutral', { plays: 'pattern', ...OPEN, ...values }),
  strands: DB.map((_, i) => ({ place: i + 1, name: `Strand ${i + 1}`, chain: chain(i) })),
});

const tempoLane = (to: number): Lane => ({
  ...laneOf('t0', null, 'gain', [
    [0, 90],
    [8, to],
  ]),
  target: { kind: 'tempo' },
});

function made(slot: Slot, bpm = 120, lanes: readonly Lane[] = [], sound = steady): Scene {
  const tempo = { bpm, beatsPerBar: 4 };
  return scene([sound], [{ clips: [clipOf('a', 0, 0, SECONDS + 1)], chain: [slot] }], {
    tempo,
    lanes: [...lanes],
    lengthBeats: 64,
  });
}

function heard(of: Scene, seconds = SECONDS, block = 128): Float32Array {
  const engine = engineOf(of);
  engine.play(0);
  return runEngine(engine, seconds, block).left;
}

/** The same, found sample by sample from where the lines are and what a gate between them does. */
function expected({ piece }: Scene, values: Values, frames: number): Float64Array {
  const tempo = tempoOf(piece);
  const choice = <T>(list: readonly T[], id: ParamValue | undefined, or: T): number => list.indexOf((id ?? or) as T);
  const length = stepBeats(choice(STEP_NOTES, values.step, '1/4'), tempo.beatsPerBar);
  const pattern = {
    order: choice(PATTERN_ORDERS, values.order, 'forward'),
    steps: Number(values.steps ?? 16),
    roll: Number(values.roll ?? 1),
    strands: [1, 2, 3, 4],
    count: 4,
    row: Array.from({ length: MAX_STEPS }, (_, i) => Number(values[`row${i + 1}`] ?? 1 + (i % 2))),
    rowStart: 0,
  };
  const open = new Int8Array(frames);
  for (let step = 0; ; step += 1) {
    const from = beatsToSamples(step * length, tempo, RATE);
    if (from >= frames) break;
    const to = beatsToSamples((step + Number(values.open ?? 1)) * length, tempo, RATE);
    open.fill(strandAtStep(pattern, step), from, Math.min(frames, to));
  }
  const slew = 1000 / (Number(values.crossfade ?? 12) * RATE);
  const out = new Float64Array(frames);
  for (let strand = 1; strand <= 4; strand += 1) {
    let way = open[0] === strand ? 1 : 0;
    for (let i = 0; i < frames; i += 1) {
      way = open[i] === strand ? Math.min(1, way + slew) : Math.max(0, way - slew);
      out[i] = out[i]! + LEVEL * FACTORS[strand - 1]! * way * way * (3 - 2 * way);
    }
  }
  return out;
}

const apart = (a: ArrayLike<number>, b: ArrayLike<number>, from = 0): number => {
  let most = 0;
  for (let i = from; i < a.length; i += 1) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
};

/** The channel's own gain comes up from nothing at the start. */
const SETTLED = RATE / 10;

test('each strand opens and shuts on the samples of its lines, whatever length, order, gate, crossfade and tempo', () => {
  const values = fc.record({
    step: fc.constantFrom(...STEP_NOTES),
    order: fc.constantFrom(...PATTERN_ORDERS),
    steps: fc.integer({ min: 1, max: MAX_STEPS }),
    roll: fc.integer({ min: 0, max: 999 }),
    open: fc.constantFrom(1, 0.73, 0.5, 0.05),
    crossfade: fc.constantFrom(1, 3.7, 12, 80),
    row3: fc.constantFrom(0, 4),
  });
  const bpm = fc.double({ min: 25, max: 290, noNaN: true });
  fc.assert(
    fc.property(values, bpm, fc.option(fc.integer({ min: 60, max: 180 })), (of, tempo, to) => {
      const scene = made(patterned(of), tempo, to === null ? [] : [tempoLane(to)]);
      const out = heard(scene);
      expect(apart(out, expected(scene, of, out.length), SETTLED)).toBeLessThan(2e-6);
    }),
    { numRuns: 40 },
  );
});

test('blocks of any size and a start in the middle give the same samples', () => {
  const scene = made(patterned({ step: '1/16t', order: 'thrown', open: 0.6 }), 131.7);
  const whole = heard(scene);
  expect(awayFrom(heard(scene, SECONDS, 333), whole)).toBe(0);
  const engine = engineOf(scene);
  const from = 64 * 1201;
  engine.play(from);
  const later = runEngine(engine, 2).left;
  expect(apart(later.subarray(SETTLED), whole.subarray(from + SETTLED, from + later.length))).toBeLessThan(1e-6);
});

test('strands that are late are gated with their sound: cut or not, two alike make up the whole', () => {
  for (const tails of ['ring', 'cut']) {
    const late = (i: number): Slot[] => (i % 2 ? [newSlot(`l${i}`, 'limiter', 'neutral', {})] : []);
    const out = heard(made(patterned({ step: '1/16', order: 'toAndFro', tails, crossfade: 5 }, late)));
    const settled = out.subarray(2 * SETTLED);
    const span = settled.reduce((a, b) => Math.max(a, b)) / settled.reduce((a, b) => Math.min(a, b));
    expect(20 * Math.log10(span)).toBeLessThan(tails === 'cut' ? 0.3 : 0.01);
  }
});

test('tails ring on into the next steps, or end with their own', () => {
  const echoes = (i: number): Slot[] =>
    i === 0
      ? [newSlot('e', 'echo', 'neutral', { balance: 'levels', dry: 0, wet: 1, timeL: 100, timeR: 100, feedback: 0.5 })]
      : [newSlot(`g${i}`, 'utility', 'neutral', { gain: -60 })];
  const click = soundOf(SECONDS, (i) => (i === 100 ? 0.5 : 0));
  const values = { step: '1/4', order: 'forward' };
  const of = (tails: string): Float32Array => heard(made(patterned({ ...values, tails }, echoes), 120, [], click));
  const [ring, cut] = [of('ring'), of('cut')];
  const at = (samples: Float32Array, k: number): number => Math.abs(samples[100 + 4800 * k]!);
  // Four repeats in the first step of half a second, the others after it.
  for (const k of [1, 2, 3, 4]) expect(at(cut, k)).toBeCloseTo(at(ring, k), 6);
  for (const k of [6, 7, 8]) {
    expect(at(ring, k)).toBeGreaterThan(1e-3);
    expect(at(cut, k)).toBeLessThan(1e-9);
  }
});

test('a hand takes a strand while the pattern waits, and the pattern goes on where it would be', () => {
  const taken: Lane = {
    ...laneOf('t0', 'b', 'taken', []),
    points: [
      [0, 0],
      [1, 3],
      [3, 0],
    ].map(([beat, value]) => ({ beat: beat!, value: value!, shape: 'hold', bend: 0 })),
  };
  const values = { step: '1/8', order: 'forward', crossfade: 1 };
  const scene = made(patterned(values), 120, [taken]);
  const out = heard(scene);
  const free = expected(scene, values, out.length);
  const beat = RATE / 2;
  // A value acts in the block of 64 samples that holds its point.
  expect(apart(out.subarray(0, beat - 64), free, SETTLED)).toBeLessThan(2e-6);
  for (let i = beat + 200; i < 3 * beat; i += 97) expect(out[i]).toBeCloseTo(LEVEL * FACTORS[2]!, 6);
  expect(apart(out.subarray(3 * beat + 200), free.subarray(3 * beat + 200))).toBeLessThan(2e-6);
});

test('a braid that plays all strands or one sounds as it did before there were patterns', () => {
  for (const plays of ['all', 'one']) {
    const with0 = heard(made(patterned({ plays, chosen: 2 })));
    const withOthers = heard(made(patterned({ plays, chosen: 2, order: 'thrown', open: 0.1, taken: 4, tails: 'cut' })));
    expect(awayFrom(with0, withOthers)).toBe(0);
  }
});
