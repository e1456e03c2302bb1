import { laneOf, scene, soundOf, clipOf } from '../testing';
import fc from 'fast-check';
import { between } from '../../testing';
import { findLane, paramOf } from '../find';
import type { Lane, Piece, Target } from '../piece';
import { laneTrack, trackAt } from './lane';
import { laneFromPass } from './record';
import { quantised, stretchedBy } from './stretchTime';
import { pasteLaneRange, copyLaneRange } from './laneRange';
import { snapped } from '../../automation/snap';
import { clippedPass, passLaid, withoutPasses } from './takes';
import type { Reading } from '../../automation/thin';

const target: Target = { kind: 'channel', channel: 't0', param: 'pan' };
const { piece: plain } = scene([soundOf(1, () => 0)], [{ clips: [clipOf('a', 0, 0, 1)] }]);
const settings = { tolerance: 0.001, seamBeats: 1 / 16 };
const ramp = (from: number, to: number, low: number, high: number): Reading[] =>
  Array.from({ length: 41 }, (_, i) => ({
    beat: from + ((to - from) * i) / 40,
    position: low + ((high - low) * i) / 40,
  }));
const withLane = (lane: Lane): Piece => ({ ...plain, lanes: [lane] });
const at = (piece: Piece, beat: number): number =>
  trackAt(laneTrack(piece, findLane(piece, target)!, paramOf(piece, target)!), beat);

describe('passes kept apart', () => {
  const before = laneOf('t0', null, 'pan', [
    [0, -1],
    [16, 1],
  ]);
  const passes = [ramp(4, 8, 0, 1), ramp(4, 7, 1, 0)];
  const recorded = passes.reduce(
    (piece, readings) => withLane(laneFromPass(piece, target, readings, 'lane-pan', settings)!),
    withLane(before),
  );

  test('another is chosen: what was there before all of them comes back, and it is laid over that', () => {
    expect(at(recorded, 5)).toBeCloseTo(2 / 3, 2);
    const cleared = withLane(withoutPasses(recorded, recorded.lanes[0]!, before, passes, settings.seamBeats)!);
    for (const beat of [0, 3, 4, 6, 7.9, 8.2, 12]) expect(at(cleared, beat)).toBeCloseTo(at(withLane(before), beat), 3);
    const first = withLane(passLaid(cleared, target, passes[0]!, null, 'lane-pan', settings)!);
    for (const beat of [4, 5, 7.5]) expect(at(first, beat)).toBeCloseTo((beat - 4) / 4, 2);
  });

  test('where there was no lane, the base value comes back', () => {
    const cleared = withLane(withoutPasses(recorded, recorded.lanes[0]!, null, passes, settings.seamBeats)!);
    for (const beat of [4, 6, 8]) expect(at(cleared, beat)).toBeCloseTo(0.5, 6);
  });

  test('parts are joined: in a stretch the one, around it the other', () => {
    const joined = withLane(passLaid(recorded, target, passes[0]!, { start: 5, end: 6 }, 'lane-pan', settings)!);
    expect(at(joined, 5.5)).toBeCloseTo(1.5 / 4, 2);
    expect(at(joined, 4.5)).toBeCloseTo(at(recorded, 4.5), 6);
    expect(at(joined, 6.5)).toBeCloseTo(at(recorded, 6.5), 6);
    expect(passLaid(recorded, target, passes[0]!, { start: 10, end: 12 }, 'lane-pan', settings)).toBeNull();
  });

  test('a pass cut to a stretch keeps within it and runs as it ran', () => {
    fc.assert(
      fc.property(between(0, 20), between(0.1, 10), (from, length) => {
        const part = clippedPass(ramp(4, 8, 0, 1), from, from + length);
        for (const { beat, position } of part) {
          expect(beat).toBeGreaterThanOrEqual(from);
          expect(beat).toBeLessThanOrEqual(from + length);
          expect(position).toBeCloseTo((beat - 4) / 4, 9);
        }
        expect(part.length > 0).toBe(from <= 8 && from + length >= 4);
      }),
    );
  });
});

describe('moves and the grid', () => {
  const piece = withLane(
    laneOf('t0', null, 'pan', [
      [0, 0],
      [1.1, 0.4],
      [2.45, -0.2],
      [4, 0],
    ]),
  );
  const taken = copyLaneRange(piece, piece.lanes[0]!, 0, 4)!;

  test('quantised, points lie on its lines with their values', () => {
    expect(quantised(taken, 0.5, 0).points.map(({ beat, value }) => [beat, value])).toEqual([
      [0, 0],
      [1, 0.4],
      [2.5, -0.2],
      [4, 0],
    ]);
    expect(quantised(taken, 4, 0).points).toHaveLength(2);
  });

  test('stretched, they run at half the speed and sound the same at half the place', () => {
    const slow = withLane(pasteLaneRange(piece, target, 8, stretchedBy(taken, 2), 1, 'lane-pan')!);
    for (const beat of [0.5, 1.1, 3]) expect(at(slow, 8 + 2 * beat)).toBeCloseTo(at(piece, beat), 6);
  });

  test('a place falls on the grid, on the nearest hit, or stays', () => {
    expect(snapped(1.3, { kind: 'grid', beats: 0.25 }, [])).toBe(1.25);
    expect(snapped(1.3, { kind: 'hits' }, [0.2, 1.42, 3])).toBe(1.42);
    expect(snapped(1.3, { kind: 'hits' }, [])).toBe(1.3);
    expect(snapped(1.3, { kind: 'off' }, [1])).toBe(1.3);
  });
});
