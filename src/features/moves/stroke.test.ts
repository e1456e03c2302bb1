import type { Lane, Piece } from '../../core/piece/piece';
import { clipOf, laneOf, scene, soundOf } from '../../core/piece/testing';
import type { Drag } from '../../ui/pointer';
import { drawnLane, strike, type Stroke } from './stroke';

const PX_PER_BEAT = 20;
const lane: Lane = laneOf('t0', null, 'pan', [[0, 0]]);
const { piece: plain } = scene([soundOf(1, () => 0)], [{ clips: [clipOf('a', 0, 0, 1)] }], { lengthBeats: 32 });
const piece: Piece = { ...plain, lanes: [lane] };

const drag = (x: number, y: number, dx: number, dy: number): Drag => ({
  startX: 0,
  startY: 0,
  x,
  y,
  dx,
  dy,
  width: 640,
  height: 100,
});
const positionAt = (y: number): number => 1 - y / 100;
const points = (drawn: Lane | null): (readonly [number, number])[] =>
  drawn!.points.map(({ beat, value }) => [beat, Math.round(value * 100) / 100] as const);

test('a stroke has a place for every pixel it passed, the later one where it passed twice', () => {
  const stroke: Stroke = new Map();
  strike(stroke, drag(10, 50, 10, 50), positionAt);
  expect([...stroke.keys()]).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
  expect(stroke.get(5)).toBeCloseTo(0.75, 9);
  strike(stroke, drag(5, 0, -5, 0), positionAt);
  expect(stroke.get(7)).toBe(1);
  strike(stroke, drag(-20, 0, -25, 0), positionAt);
  expect(Math.min(...stroke.keys())).toBe(0);
});

const slope: Stroke = new Map(Array.from({ length: 161 }, (_, i) => [80 + i, i / 160]));

test('a straight stroke needs two points; beside it the lane is as it was', () => {
  const drawn = drawnLane(piece, lane, slope, PX_PER_BEAT, 'free', { kind: 'off' });
  // From beat 4 to 12, from one side to the other.
  const on = points(drawn).filter(([beat]) => beat >= 4 && beat <= 12);
  expect(on).toEqual([
    [4, -1],
    [12, 1],
  ]);
  const before = points(drawn).filter(([beat]) => beat < 4);
  expect(before.every(([, value]) => value === 0)).toBe(true);
});

test('as a line only its ends count', () => {
  const bent: Stroke = new Map([...slope].map(([x, position]) => [x, x === 160 ? 0.9 : position]));
  const drawn = drawnLane(piece, lane, bent, PX_PER_BEAT, 'line', { kind: 'off' });
  expect(points(drawn).filter(([beat]) => beat >= 4 && beat <= 12)).toEqual([
    [4, -1],
    [12, 1],
  ]);
});

test.each([
  [{ kind: 'grid', beats: 2 } as const, [4, 6, 8, 10, 12]],
  [{ kind: 'off' } as const, Array.from({ length: 17 }, (_, i) => 4 + i / 2)],
])('as steps on %j it holds a value from each line on', (snap, lines) => {
  const drawn = drawnLane(piece, lane, slope, PX_PER_BEAT, 'steps', snap)!;
  const held = drawn.points.filter(({ beat, shape }) => shape === 'hold' && lines.includes(beat));
  expect(held.map(({ beat }) => beat)).toEqual(lines);
  // The finger's last value before the next line.
  expect(held[0]!.value).toBeLessThan(held[1]!.value);
});

test.each(['free', 'line', 'steps'] as const)('a stroke of one place draws nothing (%s)', (drawing) => {
  expect(drawnLane(piece, lane, new Map([[5, 0.5]]), PX_PER_BEAT, drawing, { kind: 'off' })).toBeNull();
});
