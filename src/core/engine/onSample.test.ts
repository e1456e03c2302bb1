import fc from 'fast-check';
import { STEP_FRAMES } from '../dsp/blocks';
import { onePoleCoefficient } from '../dsp/onePole';
import { effectOf } from '../effects/catalogue';
import { figure, toggle } from '../params/make';
import { newSlot } from '../piece/edits/chain';
import { channelParams, type Lane, type Slot, type Target } from '../piece/piece';
import { clipOf, RATE, scene, soundOf, targetOf, type Scene } from '../piece/testing';
import { between } from '../testing';
import type { Gesture } from './gesture';
import { ParameterSmoother } from './parameterSmoother';
import { awayFrom, engineOf, runEngine } from './testing';

const SECONDS = 3;
const noise = soundOf(SECONDS, (i) => 0.3 + 0.2 * Math.sin(i * i * 0.0007));

interface Kind {
  readonly target: Target;
  readonly on: number;
  /** What a hand tells the engine for the same target. */
  readonly gesture: Pick<Gesture, 'slot' | 'value'>;
  /**
   * Samples from the line to the first output sample that differs; null where it depends on the input before, 'step'
   * for anything less than a step.
   */
  readonly heardAfter: number | null | 'step';
  /** Largest difference that counts as rounding; 0 when left out. */
  readonly rounding?: number;
}

const indexIn = (effect: string, param: string): number => effectOf(effect).paramIds.indexOf(param);
const ECHO_MS = 20;

/** What is played from Play beside holds. */
const KINDS: Readonly<Record<string, Kind>> = {
  throw: {
    target: { kind: 'send', channel: 't0', to: 'r' },
    on: 1,
    gesture: { slot: null, value: Object.keys(channelParams).length },
    heardAfter: 0,
  },
  mute: {
    target: { kind: 'channel', channel: 't0', param: 'mute' },
    on: 1,
    gesture: { slot: null, value: 2 },
    heardAfter: 0,
  },
  'strand taken from a pattern': {
    target: targetOf('t0', 'b', 'taken'),
    on: 2,
    gesture: { slot: 'b', value: indexIn('braid', 'taken') },
    heardAfter: 0,
  },
  'freeze of grains': {
    target: targetOf('t0', 'g', 'freeze'),
    on: 1,
    gesture: { slot: 'g', value: indexIn('grains', 'freeze') },
    heardAfter: null,
  },
  'freeze of a reverb': {
    target: targetOf('t0', 'v', 'freeze'),
    on: 1,
    gesture: { slot: 'v', value: indexIn('reverb', 'freeze') },
    heardAfter: null,
  },
  'hold of an echo': {
    target: targetOf('t0', 'e', 'hold'),
    on: 1,
    gesture: { slot: 'e', value: indexIn('echo', 'hold') },
    heardAfter: (ECHO_MS * RATE) / 1000,
    rounding: 1e-7,
  },
  'a choice that fades': {
    target: targetOf('t0', 'f', 'slope'),
    on: 1,
    gesture: { slot: 'f', value: indexIn('filter', 'slope') },
    heardAfter: 0,
  },
  'a choice that does not fade': {
    target: targetOf('t0', 'f', 'kind'),
    on: 1,
    gesture: { slot: 'f', value: indexIn('filter', 'kind') },
    heardAfter: 'step',
  },
  'a figure of a snapshot': {
    target: targetOf('t0', 'u', 'gain'),
    on: 0.5,
    gesture: { slot: 'u', value: indexIn('utility', 'gain') },
    heardAfter: 'step',
  },
};

const strand = (place: number, mix: number) => ({
  place,
  name: `Strand ${place}`,
  chain: [newSlot(`s${place}`, 'utility', 'neutral', { gain: mix })],
});

/** Effects that are tested without grains and braid in the chain, whose latency or pattern would hide the sample. */
const ALONE: Readonly<Record<string, Slot>> = {
  v: newSlot('v', 'reverb', 'neutral', { mix: 0.5 }),
  e: newSlot('e', 'echo', 'neutral', { timeL: ECHO_MS, feedback: 0.7, mix: 0.5 }),
  f: newSlot('f', 'filter', 'neutral', { cutoff: 800 }),
  u: newSlot('u', 'utility', 'neutral'),
};

/** A track that is thrown into a return, with grains and a pattern of two strands; the first plays for long. */
function played(bpm: number, { target }: Kind, lanes: readonly Lane[]): Scene {
  const braid = {
    ...newSlot('b', 'braid', 'neutral', { plays: 'pattern', step: '1 bar', order: 'forward', steps: 2 }),
    strands: [strand(1, 1), strand(2, 0.25)],
  };
  const alone = target.kind === 'effect' ? ALONE[target.effect] : undefined;
  const track = {
    clips: [clipOf('a', 0, 0, SECONDS)],
    chain: alone ? [alone] : [newSlot('g', 'grains', 'neutral', { mix: 0.5, size: 20, scatter: 0, time: 20 }), braid],
    sends: [{ to: 'r', level: 0, pre: false }],
  };
  const back = { id: 'r', name: 'R', gain: 1, pan: 0, mute: false, solo: false, sends: [], chain: [] };
  return scene([noise], [track], {
    tempo: { bpm, beatsPerBar: 4 },
    returns: [back],
    lanes: [...lanes],
    lengthBeats: 64,
  });
}

const laneOf = (target: Target, points: readonly (readonly [beat: number, value: number])[]): Lane => ({
  id: 'l',
  target,
  unit: 'own',
  on: true,
  points: points.map(([beat, value]) => ({ beat, value, shape: 'hold', bend: 0 })),
});

function rendered(made: Scene, gesture?: Gesture): { left: Float32Array; sample: number | undefined } {
  const engine = engineOf(made);
  engine.play(0);
  if (gesture) engine.queue(gesture);
  const { left } = runEngine(engine, SECONDS - 0.5);
  return { left, sample: engine.takeApplied()?.[0]?.sample };
}

/** First sample that differs by more than rounding: the kernel of a steady echo rounds otherwise than TypeScript. */
const firstApart = (a: Float32Array, b: Float32Array, rounding: number): number =>
  a.findIndex((x, i) => Math.abs(x - b[i]!) > rounding);

function expectFrom(line: number, first: number, { heardAfter }: Kind): void {
  if (heardAfter === null || heardAfter === 'step') {
    expect(first).toBeGreaterThanOrEqual(line);
    expect(first).toBeLessThan(line + (heardAfter === null ? RATE : STEP_FRAMES));
  } else expect(first).toBe(line + heardAfter);
}

describe.each(Object.entries(KINDS))('%s', (_name, kind) => {
  const { target, on, gesture } = kind;
  const laned = (bpm: number, points: readonly (readonly [beat: number, value: number])[]): Float32Array =>
    rendered(played(bpm, kind, points.length > 0 ? [laneOf(target, points)] : [])).left;

  test('acts at its sample, and a lane of it sounds as the hand did, to the bit', () => {
    fc.assert(
      fc.property(between(60, 110), between(0.2, 2), (bpm, seconds) => {
        const line = Math.round(seconds * RATE);
        const lane = laned(bpm, [
          [0, 0],
          [(seconds * bpm) / 60, on],
        ]);
        expectFrom(line, firstApart(laned(bpm, []), lane, kind.rounding ?? 0), kind);
        const hand = { kind: 'hold', channel: 't0', to: on, atSample: seconds * RATE, tag: 1, ...gesture } as const;
        const byHand = rendered(played(bpm, kind, []), hand);
        expect(byHand.sample).toBe(line);
        expect(awayFrom(byHand.left, lane)).toBe(0);
      }),
      { numRuns: 12 },
    );
  });

  test('let go of, it ends at its sample', () => {
    fc.assert(
      fc.property(between(60, 110), between(0.7, 2), (bpm, seconds) => {
        const beat = (at: number): number => (at * bpm) / 60;
        const held = laned(bpm, [
          [0, 0],
          [beat(0.5), on],
        ]);
        const off = laned(bpm, [
          [0, 0],
          [beat(0.5), on],
          [beat(seconds), 0],
        ]);
        expectFrom(Math.round(seconds * RATE), firstApart(held, off, kind.rounding ?? 0), kind);
      }),
      { numRuns: 12 },
    );
  });
});

const sweep = { ...figure({ label: 'F', group: 'G', hint: '.', unit: 'percent', min: 0, max: 1, initial: 0 }) };

test('a value that is set within a step goes on as if it had been smoothed sample by sample from there', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: STEP_FRAMES }),
      between(0.002, 0.2),
      between(-1, 1),
      fc.boolean(),
      (offset, seconds, to, defers) => {
        const param = { ...sweep, min: -1, smoothingSeconds: seconds };
        const row = new ParameterSmoother([param], Float64Array.of(0), RATE, [defers]);
        row.hold(0, to, offset);
        const pole = 1 - onePoleCoefficient(seconds, 1, RATE);
        for (let step = 1; step < 20; step += 1) {
          row.step();
          row.clearOffset(0);
          const waits = defers && step === 1 && offset > 0;
          const gone = waits ? 0 : Math.max(0, step * STEP_FRAMES - offset);
          expect(row.now[0]).toBeCloseTo(to * (1 - Math.pow(pole, gone)), 5);
        }
      },
    ),
  );
});

test('a switch that is set at the end of a step takes effect in the next', () => {
  const row = new ParameterSmoother(
    [toggle({ label: 'S', group: 'G', hint: '.', initial: false })],
    Float64Array.of(0),
    RATE,
  );
  row.hold(0, 1, STEP_FRAMES);
  row.step();
  expect(row.now[0]).toBe(0);
  row.clearOffset(0);
  row.step();
  expect(row.now[0]).toBe(1);
});

test('a throw in the step in which playing stops rings on as smoothly as any: its offset ends with the step', () => {
  const line = 48_000 + 40;
  const beat = (line * 2) / RATE;
  const throwAt = laneOf(KINDS.throw!.target, [
    [0, 0],
    [beat, 1],
  ]);
  const made = played(120, KINDS.throw!, [throwAt]);
  const engine = engineOf(made);
  engine.play(0);
  // Whole steps up to the end of the one with the line.
  runEngine(engine, (751 * STEP_FRAMES) / RATE);
  const send = engine.channels[0]!.sends[0]!;
  expect(send.values.offsetOf(0)).toBe(40);
  engine.stop();
  runEngine(engine, STEP_FRAMES / RATE, STEP_FRAMES);
  expect(send.values.offsetOf(0)).toBe(0);
});
