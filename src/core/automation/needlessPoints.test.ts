import * as fc from 'fast-check';
import { positionAt, segmentAt, type LaneTrack } from './evaluate';
import { withoutNeedless } from './needlessPoints';
import { shapeIndex, SHAPES, type Point } from './point';

const shaped = fc.record({ value: fc.integer({ min: 0, max: 2 }), shape: fc.constantFrom(...SHAPES) });
const lanes = fc
  .array(shaped, { minLength: 1, maxLength: 14 })
  .map((list) => list.map((point, beat): Point => ({ ...point, beat, bend: 0.3 })));

function trackOf(points: readonly Point[]): LaneTrack {
  const values = Float64Array.from(points, ({ value }) => value);
  return {
    times: Float64Array.from(points, ({ beat }) => beat),
    positions: values,
    numbers: values,
    shapes: Uint8Array.from(points, ({ shape }) => shapeIndex(shape)),
    bends: Float64Array.from(points, ({ bend }) => bend),
  };
}
const valueAt = (points: readonly Point[], beat: number): number => {
  const track = trackOf(points);
  return positionAt(track, beat, segmentAt(track, beat, 0));
};

test('a lane without its needless points goes as before, and none can be taken from it again', () => {
  fc.assert(
    fc.property(lanes, (points) => {
      const kept = withoutNeedless(points);
      for (let beat = 0; beat < points.length + 1; beat += 0.125)
        expect(valueAt(kept, beat)).toBe(valueAt(points, beat));
      expect(withoutNeedless(kept)).toEqual(kept);
    }),
  );
});

test('a level stretch keeps its first point, and its last one where a line begins there', () => {
  const beats = (shape: Point['shape'], values: readonly number[]): number[] =>
    withoutNeedless(values.map((value, beat) => ({ beat, value, shape, bend: 0 }))).map(({ beat }) => beat);
  expect(beats('hold', [1, 1, 1, 2, 2])).toEqual([0, 3]);
  expect(beats('line', [1, 1, 1, 2, 2])).toEqual([0, 2, 3]);
});
