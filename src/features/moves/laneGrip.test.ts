import fc from 'fast-check';
import { between } from '../../core/testing';
import { laneTrack } from '../../core/piece/moves/lane';
import { MIN_GAP } from '../../core/automation/editPoints';
import type { Point } from '../../core/automation/point';
import { channelParams, emptyPiece, type Lane } from '../../core/piece/piece';
import { dragged, gripAt, type LaneGeometry } from './laneGrip';

const piece = emptyPiece('p', 'Piece');
const param = channelParams.pan;
const PX = 20;
const y = (position: number): number => 10 + 90 * (1 - position);
const laneOf = (points: Point[]): Lane => ({
  id: 'l',
  target: { kind: 'channel', channel: 'a', param: 'pan' },
  unit: 'own',
  on: true,
  points,
});
const laidOf = (points: Point[]): LaneGeometry => ({
  points,
  track: laneTrack(piece, laneOf(points), param),
  pxPerBeat: PX,
  y,
});
const at = (beat: number, value: number, shape: Point['shape'] = 'line', bend = 0): Point => ({
  beat,
  value,
  shape,
  bend,
});
/** Hard left at beat 0, hard right at beat 10, back to the middle at beat 20. */
const points = [at(0, -1), at(10, 1), at(20, 0)];
const free = (beat: number): number => beat;

test('a finger takes the point it is on, else the line, and what bends the chosen segment before the line; beside them it scrolls', () => {
  const laid = laidOf(points);
  expect(gripAt(laid, 200, 14, null)).toEqual({ kind: 'point', index: 1 });
  expect(gripAt(laid, 60, y(0.3), null)).toEqual({ kind: 'segment', index: 0 });
  expect(gripAt(laid, 100, y(0.5), 0)).toEqual({ kind: 'bend', index: 0 });
  expect(gripAt(laid, 100, y(0.5), 1)).toEqual({ kind: 'segment', index: 0 });
  expect(gripAt(laid, 500, y(0.5), null)).toEqual({ kind: 'segment', index: 2 });
  expect(gripAt(laid, 60, y(0.9), null)).toBeNull();
});

test('a segment is shifted whole: up with both its ends, in time as far as its neighbours let it', () => {
  const lane = laneOf([at(0, 0), at(4, -0.5), at(8, 0.5), at(12, 0)]);
  const laid = laidOf([...lane.points]);
  const shift = (beats: number, position: number) =>
    dragged(piece, lane, param, laid, { kind: 'segment', index: 1 }, { beats, position }, free).map(
      ({ beat, value }) => [beat, Number(value.toFixed(6))],
    );
  expect(shift(0, 0.1)).toEqual([
    [0, 0],
    [4, -0.3],
    [8, 0.7],
    [12, 0],
  ]);
  expect(shift(2, 0)).toEqual([
    [0, 0],
    [6, -0.5],
    [10, 0.5],
    [12, 0],
  ]);
  expect(shift(99, 0)).toEqual([
    [0, 0],
    [8 - MIN_GAP, -0.5],
    [12 - MIN_GAP, 0.5],
    [12, 0],
  ]);
  expect(shift(-99, 0)).toEqual([
    [0, 0],
    [MIN_GAP, -0.5],
    [4 + MIN_GAP, 0.5],
    [12, 0],
  ]);
});

test('a held step is lifted alone; the next stays where it is', () => {
  const lane = laneOf([at(0, -0.5, 'hold'), at(8, 0.5, 'hold')]);
  expect(
    dragged(
      piece,
      lane,
      param,
      laidOf([...lane.points]),
      { kind: 'segment', index: 0 },
      { beats: 0, position: 0.25 },
      free,
    ).map(({ value }) => value),
  ).toEqual([0, 0.5]);
});

test('what bends a segment follows the finger: rising or falling, the line then passes under it', () => {
  fc.assert(
    fc.property(fc.constantFrom([-0.8, 0.6], [0.9, -0.4]), between(-0.3, 0.3), ([from, to], by) => {
      const lane = laneOf([at(0, from!), at(10, to!)]);
      const bent = dragged(
        piece,
        lane,
        param,
        laidOf([...lane.points]),
        { kind: 'bend', index: 0 },
        { beats: 0, position: by },
        free,
      );
      const now = laidOf(bent);
      const handle = gripAt(now, 100, y(0.5 + (from! + to!) / 4 + by), 0);
      return handle?.kind === 'bend' || Math.abs(by) > 0.28;
    }),
  );
});

test('no drag leaves points out of order or beyond the rail', () => {
  const grips = fc.record({
    kind: fc.constantFrom('point' as const, 'segment' as const, 'bend' as const),
    index: fc.integer({ min: 0, max: 1 }),
  });
  fc.assert(
    fc.property(grips, between(-40, 40), between(-2, 2), (grip, beats, position) => {
      const made = dragged(piece, laneOf(points), param, laidOf(points), grip, { beats, position }, free);
      return made.every(
        (point, i) =>
          point.value >= -1 && point.value <= 1 && point.beat >= 0 && (i === 0 || point.beat > made[i - 1]!.beat),
      );
    }),
  );
});
