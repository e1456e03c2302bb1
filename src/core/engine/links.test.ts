import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import fc from 'fast-check';
import { between } from '../testing';
import { compilePlan } from './compilePlan';
import { render } from './render';
import { engineOf, runEngine } from './testing';
import { applyEdit, EditRefused } from '../piece/edit';
import { addLink, linksToMoves, removeLink, setModulator } from '../piece/edits/links';
import { newSlot } from '../piece/edits/chain';
import type { Link, Piece, Target } from '../piece/piece';
import { readPiece } from '../piece/versions/readPiece';
import { laneFromLinks, linkedRail } from '../piece/links/link';
import { linkOffset } from '../automation/linkTransfer';
import { makeModulator, type Drift, type Lfo, type Modulator } from '../automation/modulator';
import { modulatorAt, modulatorTrack } from '../automation/modulatorTrack';

const context = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: RATE };
const lfo: Lfo = {
  id: 'm',
  name: 'LFO',
  kind: 'lfo',
  rate: '1/2',
  shape: 'sine',
  phase: 0,
  roll: 1,
};
const at = (modulator: Modulator, seconds: number): number =>
  modulatorAt(modulatorTrack(modulator, context), seconds * RATE);

describe('modulators', () => {
  test('an LFO at a note value turns once in that note, from its phase', () => {
    // A half note at 120 BPM is a second.
    for (const seconds of [0, 0.1, 0.25, 0.6, 7.9]) {
      expect(at(lfo, seconds)).toBeCloseTo(Math.sin(2 * Math.PI * seconds), 5);
      expect(at({ ...lfo, phase: 0.25 }, seconds)).toBeCloseTo(Math.cos(2 * Math.PI * seconds), 5);
      expect(at({ ...lfo, rate: 3 }, seconds)).toBeCloseTo(Math.sin(2 * Math.PI * 3 * seconds), 5);
    }
  });

  test('steps stand one note each, come round again, and glide from the one before', () => {
    const steps = makeModulator('steps', { ...lfo, rate: '1/8', glide: 0.5, steps: [-1, 0, 0.5] });
    // An eighth is a quarter of a second; a step has arrived after half of it.
    expect([0.2, 0.45, 0.7, 0.95].map((seconds) => at(steps, seconds))).toEqual([-1, 0, 0.5, -1]);
    expect(at(steps, 0.25 + 0.0625)).toBeCloseTo(-0.5, 9);
  });

  test('thrown values stand for a turn each, a drawn form runs along its lines and round again', () => {
    const random: Modulator = { ...lfo, shape: 'random' };
    expect([0.1, 0.5, 0.99].map((seconds) => at(random, 5 + seconds))).toEqual(Array(3).fill(at(random, 5.2)));
    expect(new Set(Array.from({ length: 20 }, (_, turn) => at(random, turn + 0.5))).size).toBe(20);
    const drawn: Modulator = { ...lfo, shape: 'drawn', form: [0, 1, -1, -0.5] };
    expect([0, 0.125, 0.25, 0.375, 0.5, 0.75, 0.875, 1.25].map((seconds) => at(drawn, seconds))).toEqual([
      0, 0.5, 1, 0, -1, -0.5, -0.25, 1,
    ]);
  });

  test('drift stays within its bounds, never jumps, is the same every time and another for another roll', () => {
    const drift: Drift = { id: 'm', name: 'Drift', kind: 'drift', rate: 2, roll: 1 };
    fc.assert(
      fc.property(between(0, 600), fc.nat(), (seconds, roll) => {
        const here = at({ ...drift, roll }, seconds);
        return (
          Math.abs(here) <= 1 &&
          here === at({ ...drift, roll }, seconds) &&
          Math.abs(at({ ...drift, roll }, seconds + 0.001) - here) < 0.01
        );
      }),
    );
    const run = (roll: number): number[] => Array.from({ length: 400 }, (_, i) => at({ ...drift, roll }, i / 2 + 0.01));
    const mean = run(1).reduce((sum, x) => sum + x, 0) / 400;
    expect(Math.abs(mean)).toBeLessThan(0.1);
    expect(run(1)).not.toEqual(run(2));
  });
});

const level: Link = { id: 'l', modulator: 'm', target: { kind: 'channel', channel: 't0', param: 'pan' }, depth: 0.25 };

/** Half a volt of standing signal, whose pan or filter is turned. */
function standing(
  links: readonly Link[],
  modulators: readonly Modulator[],
  more: Partial<Piece['tracks'][number]> = {},
  wave = soundOf(8, () => 0.5),
): Scene {
  return scene([wave], [{ clips: [clipOf('c', 0, 0, 8)], ...more }], {
    links: [...links],
    modulators: [...modulators],
  });
}

const heard = ({ piece, sounds }: Scene, from: number, to: number): { left: Float32Array; right: Float32Array } =>
  render({
    plan: compilePlan(piece),
    sounds,
    fromSample: Math.round(from * RATE),
    toSample: Math.round(to * RATE),
    tail: { kind: 'seconds', seconds: 0 },
  })!;

test('a linked pan moves as its LFO says, both ways round for a depth below zero', () => {
  for (const depth of [0.25, -0.25]) {
    const { left, right } = heard(standing([{ ...level, depth }], [{ ...lfo, rate: 0.5 }]), 0, 4);
    for (const seconds of [0.5, 1.1, 1.9, 2.6, 3.3]) {
      // The rail of pan goes from -1 to 1: a depth of a quarter of it is half a turn to a side.
      const pan = 2 * depth * Math.sin(2 * Math.PI * 0.5 * (seconds - 0.01));
      const i = Math.round(seconds * RATE);
      expect(left[i]! / 0.5).toBeCloseTo(pan > 0 ? Math.cos((pan * Math.PI) / 2) : 1, 1);
      expect(right[i]! / 0.5).toBeCloseTo(pan < 0 ? Math.cos((pan * Math.PI) / 2) : 1, 1);
    }
  }
});

test('started in the middle it sounds as if played from the start, and several links add up', () => {
  const filter = newSlot('f', 'filter', 'neutral', { cutoff: 800 });
  const target: Target = { kind: 'effect', channel: 't0', effect: 'f', param: 'cutoff' };
  const links: Link[] = [
    { id: 'a', modulator: 'm', target, depth: 0.2 },
    { id: 'b', modulator: 'd', target, depth: 0.15 },
  ];
  const noise = soundOf(8, (i) => 0.3 * Math.sin(i * i * 0.001));
  const made = standing(links, [lfo, makeModulator('drift', { ...lfo, id: 'd', rate: 3 })], { chain: [filter] }, noise);
  const whole = heard(made, 0, 6);
  const late = heard(made, 3, 6);
  let away = 0;
  for (let i = RATE; i < 3 * RATE; i += 1) away = Math.max(away, Math.abs(late.left[i]! - whole.left[i + 3 * RATE]!));
  expect(away).toBeLessThan(1e-4);
  const rail = linkedRail(made.piece, target)!;
  expect(rail.high - rail.low).toBeCloseTo(0.7, 6);
});

test('a macro turns all that is linked to it by its own lane, one way, from whatever place it is played', () => {
  const macro = makeModulator('macro', { id: 'm', name: 'Macro 1' });
  const lane = {
    id: 'ml',
    target: { kind: 'macro' as const, macro: 'm' },
    unit: 'own' as const,
    on: true,
    points: [
      { beat: 0, value: 0, shape: 'line' as const, bend: 0 },
      { beat: 8, value: 1, shape: 'line' as const, bend: 0 },
    ],
  };
  const made = standing([{ ...level, depth: 0.5 }], [macro]);
  const moved = { ...made, piece: { ...made.piece, lanes: [lane] } };
  const { left } = heard(moved, 0, 4);
  // Pan goes from the middle to the right end of its rail over eight beats, four seconds.
  for (const seconds of [1, 2, 3])
    expect(left[seconds * RATE]! / 0.5).toBeCloseTo(Math.cos((seconds / 4) * (Math.PI / 2)), 1);
  const late = heard(moved, 2, 4);
  expect(Math.abs(late.left[RATE]! - left[3 * RATE]!)).toBeLessThan(1e-4);
  const rail = linkedRail(moved.piece, level.target)!;
  expect([rail.low, rail.high, rail.at(4)]).toEqual([0.5, 1, expect.closeTo(0.75, 3)]);
  expect(applyEdit(moved.piece, removeLink, { link: 'l' }).piece.lanes).toEqual([]);
});

test('a link bends by its curve, to both sides alike, and pushes nothing out of its range nor into it', () => {
  const push = { depth: 0.5, curve: 0.6, low: 0.2, high: 0.7 };
  fc.assert(
    fc.property(between(0, 1), between(-1, 1), between(-1, 1), (at, turn, depth) => {
      const to = at + linkOffset(at, turn, { ...push, depth });
      const free = linkOffset(at, turn, { ...push, depth, low: 0, high: 1 });
      expect(free).toBeCloseTo(-linkOffset(at, -turn, { ...push, depth, low: 0, high: 1 }), 12);
      expect(Math.abs(free)).toBeGreaterThanOrEqual(Math.abs(depth * turn) - 1e-12);
      expect(to).toBeGreaterThanOrEqual(Math.min(at, 0.2) - 1e-12);
      expect(to).toBeLessThanOrEqual(Math.max(at, 0.7) + 1e-12);
      if (at + free > 0.2 && at + free < 0.7) expect(to).toBeCloseTo(at + free, 12);
    }),
  );
});

test('what is heard keeps to the curve and the range of a link', () => {
  // Pan stands in the middle of its rail and is pushed to 0.75 of it at most.
  const { left } = heard(
    standing(
      [{ ...level, depth: 0.5, curve: -0.5, range: { low: 0.4, high: 0.75 } }],
      [{ ...lfo, rate: 0.25, shape: 'triangle' }],
    ),
    0,
    4,
  );
  const rail = linkedRail(
    standing(
      [{ ...level, depth: 0.5, curve: -0.5, range: { low: 0.4, high: 0.75 } }],
      [{ ...lfo, rate: 0.25, shape: 'triangle' }],
    ).piece,
    level.target,
  )!;
  expect([rail.low, rail.high]).toEqual([0.4, 0.75]);
  for (const seconds of [0.3, 0.5, 0.7, 0.9, 1]) {
    // A quarter of the turn of four seconds rises from 0 to 1; k of the rational curve at -0.5 is 1 / 1.49... by its
    // definition.
    const k = 1 / (1 - 0.98 * 0.5);
    const bent = seconds / (seconds + k * (1 - seconds));
    const pan = 2 * Math.min(0.25, 0.5 * bent);
    expect(left[Math.round((seconds + 0.01) * RATE)]! / 0.5).toBeCloseTo(Math.cos((pan * Math.PI) / 2), 1);
  }
  expect(Math.min(...left.subarray(RATE / 2, 1.5 * RATE)) / 0.5).toBeCloseTo(Math.cos(Math.PI / 4), 2);
});

test('an LFO turns a macro, which turns on what is linked to it, from whatever place it is played', () => {
  const macro: Modulator = { ...lfo, kind: 'macro', name: 'Macro 1', level: 0.5 };
  const slow: Modulator = { ...lfo, id: 'slow', rate: 0.25 };
  const turned: Link = {
    id: 't',
    modulator: 'slow',
    target: { kind: 'macro' as const, macro: 'm' },
    depth: 0.4,
  };
  const made = standing([{ ...level, depth: 0.5 }, turned], [macro, slow]);
  const { left } = heard(made, 0, 6);
  for (const seconds of [0.5, 1, 2.2, 3, 3.6]) {
    const stands = 0.5 + 0.4 * Math.sin((2 * Math.PI * (seconds - 0.02)) / 4);
    expect(left[Math.round(seconds * RATE)]! / 0.5).toBeCloseTo(Math.cos((stands * Math.PI) / 2), 1);
  }
  const late = heard(made, 3, 6);
  expect(Math.abs(late.left[RATE]! - left[4 * RATE]!)).toBeLessThan(1e-3);
  expect(linkedRail(made.piece, level.target)!.at(2)).toBeCloseTo(0.5 + 0.5 * 0.9, 3);
  expect(() =>
    applyEdit(made.piece, addLink, { modulator: macro, link: { ...turned, id: 'own', modulator: 'm' } }),
  ).toThrow(EditRefused);
  expect(() => applyEdit(made.piece, setModulator, { modulator: 'slow', change: { kind: 'macro' } })).toThrow(
    EditRefused,
  );
  expect(applyEdit(made.piece, removeLink, { link: 'l' }).piece).toMatchObject({ links: [], modulators: [] });
});

test('written as moves, links sound as before and are gone', () => {
  const { piece, sounds } = standing([level], [lfo]);
  const lane = laneFromLinks(piece, level.target, 0, 16, 'lane')!;
  const { piece: written } = applyEdit(piece, linksToMoves, { target: level.target, lane });
  expect([written.links, written.modulators]).toEqual([[], []]);
  expect(lane.points.length).toBeLessThan(200);
  const [before, after] = [heard({ piece, sounds }, 0, 6), heard({ piece: written, sounds }, 0, 6)];
  let away = 0;
  for (let i = 0; i < before.left.length; i += 1) away = Math.max(away, Math.abs(before.left[i]! - after.left[i]!));
  expect(away).toBeLessThan(0.5 * 0.03);
});

test('a link that is taken from a send leaves it where its rail stands', () => {
  const { piece, sounds } = standing(
    [{ ...level, target: { kind: 'send', channel: 't0', to: 'r' }, depth: 0.5 }],
    [{ ...lfo, rate: 0.5 }],
    { sends: [{ to: 'r', level: 0.5, pre: false }] },
  );
  const made: Piece = {
    ...piece,
    returns: [{ id: 'r', name: 'R', gain: 1, pan: 0, mute: false, solo: true, sends: [], chain: [] }],
  };
  const engine = engineOf({ piece: made, sounds });
  engine.play(0);
  runEngine(engine, 0.6);
  engine.setPlan(compilePlan({ ...made, links: [], modulators: [] }));
  const { left } = runEngine(engine, 1);
  expect(left[left.length - 1]).toBeCloseTo(0.5 * 0.5, 3);
});

test('one modulator turns many, once each; taken from the last of them it is gone', () => {
  const { piece } = standing([], []);
  const once = applyEdit(piece, addLink, { modulator: lfo, link: level }).piece;
  expect(() => applyEdit(once, addLink, { modulator: lfo, link: { ...level, id: 'again' } })).toThrow(EditRefused);
  const twice = applyEdit(once, addLink, {
    modulator: lfo,
    link: { ...level, id: 'g', target: { kind: 'channel', channel: 't0', param: 'gain' } },
  }).piece;
  expect(twice.modulators).toHaveLength(1);
  const left = applyEdit(twice, removeLink, { link: 'l' }).piece;
  expect(left.modulators).toHaveLength(1);
  expect(applyEdit(left, removeLink, { link: 'g' }).piece.modulators).toEqual([]);
});

test('a piece of every older version opens, without links', () => {
  const { links: _links, modulators: _modulators, returns, tracks, ...rest } = standing([], []).piece;
  const bare = tracks.map(({ sends: _sends, ...track }) => track);
  for (const stored of [
    { ...rest, tracks: bare, version: 1 },
    { ...rest, tracks, returns, version: 2 },
    { ...rest, tracks, returns, version: 3 },
  ]) {
    expect(readPiece(stored)).toMatchObject({ version: 7, snapshots: [], links: [], modulators: [], returns: [] });
  }
});
