import fc from 'fast-check';
import { between } from '../../testing';
import { addEffect, newSlot } from '../edits/chain';
import { addTrack } from '../edits/channels';
import { recordMove } from '../edits/lanes';
import { applyEdit } from '../edit';
import { emptyPiece, type Piece, type Target } from '../piece';
import { addPoint, movePoint, splitPoints } from '../../automation/editPoints';
import { bendThrough, applyBend, positionAt, segmentAt, splitBend } from '../../automation/evaluate';
import { laneTrack, trackAt } from './lane';
import type { Point } from '../../automation/point';
import { laneFromPass, laneFromStep, SEAM_BEATS, TOLERANCE } from './record';
import { thin, type Reading } from '../../automation/thin';

const target: Target = { kind: 'effect', channel: 'voice', effect: 'slot', param: 'input' };
const track = {
  id: 'voice',
  name: 'Voice',
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  clips: [],
  chain: [],
};
function pieceWithEcho(): Piece {
  const { piece } = applyEdit(emptyPiece('p', 'P'), addTrack, { track, sounds: {} });
  return applyEdit(piece, addEffect, { channel: 'voice', slot: newSlot('slot', 'echo', 'neutral'), at: 0 }).piece;
}
const param = {
  kind: 'number',
  unit: 'ratio',
  min: 0,
  max: 1,
  initial: 0,
  taper: { kind: 'linear' },
  smoothingSeconds: 0,
  label: '',
  hint: '',
  group: '',
} as const;
const TIMED = { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: 48_000 };
const run = (points: readonly Point[], beat: number): number =>
  trackAt(laneTrack(TIMED, { unit: 'own', points: [...points] }, param), beat);

const points = fc
  .array(
    fc.record({
      beat: between(0, 64),
      value: between(0, 1),
      shape: fc.constantFrom('line', 'hold', 'curve'),
      bend: between(-1, 1),
    }),
    { minLength: 1, maxLength: 12 },
  )
  .map((list): Point[] =>
    list
      .map((point) => ({ ...point, beat: Math.round(point.beat * 64) / 64 }) as Point)
      .sort((a, b) => a.beat - b.beat)
      .filter((point, i, all) => point.beat !== all[i - 1]?.beat),
  );

describe('evaluation', () => {
  const lane: Point[] = [
    { beat: 1, value: 0.2, shape: 'line', bend: 0 },
    { beat: 3, value: 0.8, shape: 'hold', bend: 0 },
    { beat: 4, value: 0.4, shape: 'curve', bend: 0.5 },
    { beat: 6, value: 1, shape: 'line', bend: 0 },
  ];

  test.each([
    [0, 0.2],
    [2, 0.5],
    [3.9, 0.8],
    [4, 0.4],
    [9, 1],
  ])('at beat %d it stands at %d', (beat, value) => expect(run(lane, beat)).toBeCloseTo(value, 9));

  test('a curve above 0 hurries, below 0 waits, and the two are mirrors', () => {
    expect(run(lane, 5)).toBeGreaterThan(0.7);
    fc.assert(
      fc.property(between(0, 1), between(0, 1), (t, bend) => Math.abs(applyBend(applyBend(t, bend), -bend) - t) < 1e-9),
    );
  });

  test('the guess of a segment never changes what is found', () => {
    fc.assert(
      fc.property(points, between(0, 70), fc.integer({ min: -1, max: 20 }), (list, beat, guess) => {
        const read = laneTrack(TIMED, { unit: 'own', points: list }, param);
        return positionAt(read, beat, segmentAt(read, beat, guess)) === trackAt(read, beat);
      }),
    );
  });

  test('a curve is bent through any place a hand takes its middle to', () => {
    fc.assert(
      fc.property(
        between(0.1, 0.9),
        between(0.1, 0.9),
        (t, share) =>
          Math.abs(applyBend(t, bendThrough(t, share)) - share) < 1e-9 || Math.abs(bendThrough(t, share)) === 1,
      ),
    );
    expect(bendThrough(0.5, 0.5)).toBeCloseTo(0, 12);
  });

  test('a curve cut in two runs as it ran', () => {
    fc.assert(
      fc.property(between(-1, 1), between(0.01, 0.99), between(0, 1), (bend, cut, t) => {
        const [first, second] = splitBend(bend, cut);
        const middle = applyBend(cut, bend);
        const joined =
          t < cut
            ? middle * applyBend(t / cut, first)
            : middle + (1 - middle) * applyBend((t - cut) / (1 - cut), second);
        return Math.abs(joined - applyBend(t, bend)) < 1e-9;
      }),
    );
  });
});

describe('editing', () => {
  test('a point more in any lane changes nothing that is heard', () => {
    fc.assert(
      fc.property(
        points,
        between(0, 70),
        between(0, 70),
        (list, at, beat) =>
          Math.abs(run(splitPoints(list, at, run(list, at)), beat) - run(list, beat)) < 1e-6 ||
          list.some((point) => Math.abs(point.beat - beat) < 1e-6),
      ),
    );
  });

  test('points keep their order and number however they are moved, and one is added in its place', () => {
    fc.assert(
      fc.property(points, fc.nat(11), between(-5, 80), (list, index, beat) => {
        const moved = movePoint(list, index % list.length, beat, 0.5);
        const added = addPoint(list, Math.abs(beat), 0.25);
        return (
          moved.length === list.length &&
          moved.every((point, i) => i === 0 || point.beat > moved[i - 1]!.beat) &&
          added.points[added.index]!.value === 0.25
        );
      }),
    );
  });
});

describe('thinning', () => {
  const readings = fc
    .array(between(0, 1), { minLength: 2, maxLength: 60 })
    .map((values): Reading[] => values.map((position, i) => ({ beat: i * 0.1, position })));

  test('never misses a reading by more than the tolerance', () => {
    fc.assert(
      fc.property(readings, between(0.001, 0.2), (list, tolerance) => {
        const kept = thin(list, tolerance).map((reading): Point => ({
          beat: reading.beat,
          value: reading.position,
          shape: 'line',
          bend: 0,
        }));
        return list.every((reading) => Math.abs(run(kept, reading.beat) - reading.position) <= tolerance + 1e-9);
      }),
    );
  });

  test('needs no fewer points than the best choice of readings, found by trying all', () => {
    const list = [0, 0.1, 0.35, 0.4, 0.3, 0.2, 0.6, 0.9, 0.85, 0.8].map((position, i) => ({ beat: i, position }));
    const holds = (mask: number): boolean => {
      const kept = list
        .filter((_, i) => mask & (1 << i))
        .map((reading): Point => ({ beat: reading.beat, value: reading.position, shape: 'line', bend: 0 }));
      return list.every((reading) => Math.abs(run(kept, reading.beat) - reading.position) <= 0.1 + 1e-9);
    };
    const ends = 1 | (1 << 9);
    let fewest = list.length;
    for (let mask = 0; mask < 1 << 10; mask += 1) {
      const count = mask.toString(2).split('1').length - 1;
      if ((mask & ends) === ends && count < fewest && holds(mask)) fewest = count;
    }
    expect(thin(list, 0.1)).toHaveLength(fewest);
  });

  test('a straight ride of a thousand readings is two points', () => {
    expect(
      thin(
        Array.from({ length: 1000 }, (_, i) => ({ beat: i / 100, position: i / 1000 })),
        TOLERANCE,
      ),
    ).toHaveLength(2);
  });
});

describe('recording', () => {
  const ride = (from: number, to: number): Reading[] =>
    Array.from({ length: 50 }, (_, i) => ({
      beat: from + ((to - from) * i) / 49,
      position: 0.5 + 0.4 * Math.cos(i / 5),
    }));

  test('a first pass leaves the base value in force before and after it', () => {
    const piece = pieceWithEcho();
    const lane = laneFromPass(piece, target, ride(4, 8), 'lane')!;
    expect([0, 3.9, 8.1, 60].map((beat) => run(lane.points, beat))).toEqual([1, 1, 1, 1]);
    for (const { beat, position } of ride(4, 8))
      expect(Math.abs(run(lane.points, beat) - position)).toBeLessThanOrEqual(TOLERANCE + 1e-9);
  });

  test('a second pass changes only its own stretch', () => {
    fc.assert(
      fc.property(points, between(0.2, 40), between(0, 70), (list, from, beat) => {
        const piece = applyEdit(pieceWithEcho(), recordMove, {
          lane: { id: 'lane', target, unit: 'own', on: true, points: list },
          how: 'draw',
        }).piece;
        const lane = laneFromPass(piece, target, ride(from, from + 3), 'new')!;
        const inside = beat > from - SEAM_BEATS - 1e-6 && beat < from + 3 + SEAM_BEATS + 1e-6;
        return (
          lane.id === 'lane' &&
          (inside ||
            list.some((point) => Math.abs(point.beat - beat) < 1e-6) ||
            Math.abs(run(lane.points, beat) - run(list, beat)) < 1e-6)
        );
      }),
    );
  });

  test('a value set in one go holds from there to the next point', () => {
    const piece = pieceWithEcho();
    const lane = laneFromStep(piece, target, 8, 0.25, 'lane')!;
    const then = applyEdit(piece, recordMove, { lane, how: 'ride' }).piece;
    const again = laneFromStep(then, target, 4, 0.75, 'x')!;
    expect([0, 3.9, 4, 7.9, 8, 20].map((beat) => run(again.points, beat))).toEqual([1, 1, 0.75, 0.75, 0.25, 0.25]);
  });

  test('a synced time is recorded in beats and follows the tempo', () => {
    const time = { ...target, param: 'timeL' };
    const lane = laneFromPass(
      pieceWithEcho(),
      time,
      [
        { beat: 4, position: 0.3 },
        { beat: 5, position: 0.6 },
      ],
      'lane',
    )!;
    expect(lane.unit).toBe('beats');
    expect(lane.points[0]!.value).toBeCloseTo(1, 9);
  });
});
