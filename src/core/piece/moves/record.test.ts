import fc from 'fast-check';
import { movePoint } from '../../automation/editPoints';
import { findLane, paramOf } from '../find';
import type { Lane, Piece, Target } from '../piece';
import { clipOf, scene, soundOf } from '../testing';
import { laneTrack, trackAt } from './lane';
import { laneFromSteps } from './record';

const pan: Target = { kind: 'channel', channel: 't0', param: 'pan' };
const { piece } = scene([soundOf(1, () => 0)], [{ clips: [clipOf('a', 0, 0, 1)] }]);
const CENTRE = 0.5;

/** Lays what was played from beat to beat at a place of the rail. */
function withTouch(before: Piece, from: number, to: number, position: number): Piece {
  const lane = laneFromSteps(before, pan, [{ beat: from, position }], to, 'l')!;
  return { ...before, lanes: [...before.lanes.filter(({ id }) => id !== 'l'), lane] };
}

const laneOf = (from: Piece): Lane => findLane(from, pan)!;
const placeAt = (from: Piece, beat: number): number =>
  trackAt(laneTrack(from, laneOf(from), paramOf(from, pan)!), beat);

test('what was played leaves one point at each edge, so that a touch that came late is moved to an earlier beat', () => {
  const played = withTouch(withTouch(piece, 2.3, 3, 0.8), 6.2, 7, 0.9);
  expect(laneOf(played).points.map(({ beat, shape }) => [beat, shape])).toEqual(
    [0, 2.3, 3, 6.2, 7].map((beat) => [beat, 'hold']),
  );
  for (const [index, late, wanted] of [
    [1, 2.3, 2],
    [3, 6.2, 6],
  ] as const) {
    const points = movePoint(laneOf(played).points, index, wanted, laneOf(played).points[index]!.value);
    const mended = { ...played, lanes: [{ ...laneOf(played), points }] };
    expect(placeAt(mended, wanted + 0.01)).toBeCloseTo(placeAt(played, late + 0.01), 9);
    expect(placeAt(mended, wanted - 0.01)).toBeCloseTo(CENTRE, 9);
  }
});

test('touches laid one after another read as they were played, whatever was there before', () => {
  const touch = fc.tuple(
    fc.integer({ min: 0, max: 40 }),
    fc.integer({ min: 1, max: 6 }),
    fc.double({ min: 0, max: 1, noNaN: true }),
  );
  fc.assert(
    fc.property(fc.array(touch, { minLength: 1, maxLength: 8 }), (touches) => {
      let played = piece;
      const wanted = new Float64Array(200).fill(CENTRE);
      for (const [quarter, length, position] of touches) {
        played = withTouch(played, quarter / 4, (quarter + length) / 4, position);
        wanted.fill(position, 4 * quarter, 4 * (quarter + length));
      }
      const { points } = laneOf(played);
      const inOrder = points.every(({ beat }, i) => i === 0 || beat > points[i - 1]!.beat);
      return inOrder && wanted.every((place, i) => Math.abs(placeAt(played, (i + 0.5) / 16) - place) < 1e-9);
    }),
  );
});
