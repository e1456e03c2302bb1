import { scene } from '../testing';
import fc from 'fast-check';
import { between } from '../../testing';
import { newSlot } from '../edits/chain';
import type { Lane, Piece, Target } from '../piece';
import { laneTrack, trackAt } from './lane';
import { paramOf } from '../find';
import type { Point } from '../../automation/point';
import {
  clearLaneRange,
  drawnShape,
  flippedInTime,
  flippedInValue,
  pasteLaneRange,
  scaled,
  smoothed,
  copyLaneRange,
  tilted,
  type LaneRange,
} from './laneRange';

const target: Target = { kind: 'effect', channel: 't0', effect: 'e', param: 'input' };
const base: Piece = scene([], [{ clips: [], chain: [newSlot('e', 'echo', 'neutral')] }]).piece;
const points = fc
  .array(
    fc.record({
      beat: fc.integer({ min: 0, max: 640 }),
      value: between(0, 1),
      shape: fc.constantFrom('line', 'hold', 'curve'),
      bend: between(-1, 1),
    }),
    { minLength: 1, maxLength: 10 },
  )
  .map((list): Point[] =>
    list
      .map((point) => ({ ...point, beat: point.beat / 10 }) as Point)
      .sort((a, b) => a.beat - b.beat)
      .filter((point, i, all) => point.beat !== all[i - 1]?.beat),
  );
const laneOf = (list: Point[]): Lane => ({ id: 'lane', target, unit: 'own', on: true, points: list });
const withLane = (lane: Lane): Piece => ({ ...base, lanes: [lane] });
const at = (lane: Lane, beat: number): number => trackAt(laneTrack(base, lane, paramOf(base, lane.target)!), beat);
const inStretch = (stretch: LaneRange, beat: number): number =>
  at({ ...laneOf(stretch.points.map((point) => ({ ...point, value: point.position }))), target }, beat);
const jumpNear = (list: readonly Point[], beat: number, within = 0.01): boolean =>
  list.some((point) => Math.abs(point.beat - beat) < within);
const place = between(1, 30);

test('copied elsewhere a stretch keeps its shape, and outside of it nothing changes', () => {
  fc.assert(
    fc.property(
      points,
      place,
      between(0.5, 8),
      place,
      between(0, 1),
      between(0, 64),
      (list, from, length, to, share, beat) => {
        const lane = laneOf(list);
        const made = pasteLaneRange(
          withLane(lane),
          target,
          to,
          copyLaneRange(withLane(lane), lane, from, from + length)!,
          1,
          'x',
        )!;
        const ordered = made.points.every((point, i) => i === 0 || point.beat >= made.points[i - 1]!.beat);
        const inside = from + share * length;
        const same =
          jumpNear(list, inside) ||
          Math.abs(at(made, to + share * length) - at(lane, inside)) < 1e-6 ||
          share < 1e-3 ||
          share > 1 - 1e-3;
        const outside =
          beat > to - 0.01 && beat < to + length + 0.01
            ? true
            : jumpNear(list, beat) || Math.abs(at(made, beat) - at(lane, beat)) < 1e-5;
        return ordered && same && outside;
      },
    ),
  );
});

test('repeated, it comes again and again', () => {
  const lane = laneOf([
    { beat: 0, value: 0, shape: 'line', bend: 0 },
    { beat: 4, value: 1, shape: 'line', bend: 0 },
  ]);
  const made = pasteLaneRange(withLane(lane), target, 8, copyLaneRange(withLane(lane), lane, 1, 3)!, 3, 'x')!;
  for (let n = 0; n < 3; n += 1)
    for (const share of [0.1, 1, 1.9]) expect(at(made, 8 + 2 * n + share)).toBeCloseTo((1 + share) / 4, 2);
  expect(at(made, 14.1)).toBeCloseTo(1, 6);
});

test('backwards twice is as it was; upside down twice as well', () => {
  fc.assert(
    fc.property(points, between(0, 8), (list, beat) => {
      const lane = laneOf(list);
      const stretch = copyLaneRange(withLane(lane), lane, 10, 18)!;
      const near = jumpNear(list, beat + 10, 0.02) || jumpNear(list, 18 - beat, 0.02);
      const back = flippedInTime(stretch);
      return (
        near ||
        (Math.abs(inStretch(back, 8 - beat) - inStretch(stretch, beat)) < 1e-5 &&
          Math.abs(inStretch(flippedInTime(back), beat) - inStretch(stretch, beat)) < 1e-5 &&
          Math.abs(inStretch(flippedInValue(flippedInValue(stretch)), beat) - inStretch(stretch, beat)) < 1e-9)
      );
    }),
  );
});

test('scaled, tilted and smoothed it stays within the rail and does what it says', () => {
  const lane = laneOf([
    { beat: 0, value: 0.4, shape: 'line', bend: 0 },
    { beat: 4, value: 0.6, shape: 'line', bend: 0 },
    { beat: 8, value: 0.4, shape: 'line', bend: 0 },
  ]);
  const stretch = copyLaneRange(withLane(lane), lane, 0, 8)!;
  expect(inStretch(scaled(stretch, 2), 4)).toBeCloseTo(0.7, 6);
  expect(inStretch(scaled(stretch, 100), 4)).toBe(1);
  expect(inStretch(tilted(stretch, 0.3), 8)).toBeCloseTo(0.7, 6);
  const soft = smoothed(base, stretch);
  expect(inStretch(soft, 4)).toBeLessThan(0.59);
  expect([inStretch(soft, 0), inStretch(soft, 8)].map((x) => Math.round(100 * x))).toEqual([40, 40]);
});

test('cleared, it stands at the base value there and nowhere else', () => {
  const lane = laneOf([{ beat: 0, value: 0.2, shape: 'line', bend: 0 }]);
  const made = clearLaneRange(withLane(lane), lane, 4, 8)!;
  expect([3.9, 4.1, 7.9, 8.1].map((beat) => at(made, beat))).toEqual([0.2, 1, 1, 0.2]);
});

test('drawn shapes turn as often as asked between the two places', () => {
  const run = (shape: Parameters<typeof drawnShape>[0], beat: number): number =>
    inStretch(drawnShape(shape, 8, 2, 0.2, 0.8, 5), beat);
  expect([0.01, 1, 1.98, 2.01].map((beat) => Math.round(100 * run('rise', beat)))).toEqual([20, 50, 80, 20]);
  expect([0.5, 1.5, 6.5, 7.5].map((beat) => run('square', beat))).toEqual(
    [0.8, 0.2, 0.8, 0.2].map((x) => expect.closeTo(x, 6)),
  );
  for (let beat = 0; beat < 8; beat += 0.13)
    expect(Math.abs(run('sine', beat) - (0.5 - 0.3 * Math.cos(Math.PI * beat)))).toBeLessThan(0.012);
  expect(run('triangle', 1)).toBeCloseTo(0.8, 6);
  const draws = [0, 2, 4, 6].map((beat) => run('random', beat + 1));
  expect(new Set(draws).size).toBe(4);
  expect(draws.every((x) => x >= 0.2 && x <= 0.8)).toBe(true);
});
