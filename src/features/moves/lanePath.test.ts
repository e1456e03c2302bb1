import type { Point } from '../../core/automation/point';
import { isCrowded, linePath, shownPoints } from './lanePath';

const points = (count: number): Point[] =>
  Array.from({ length: count }, (_, i) => ({ beat: i, value: 0, shape: 'line', bend: 0 }));
const line = (made: Point[], positions: number[], pxPerBeat: number): Parameters<typeof linePath>[0] => ({
  points: made,
  positions,
  shapes: made.map(() => 0),
  pxPerBeat,
  y: (position) => 100 * (1 - position),
});

test('only points in sight are drawn, and one on each side so that lines come in from outside', () => {
  expect(shownPoints(points(1000), 10, { from: 1005, to: 1104 })).toEqual({ first: 100, end: 112 });
  expect(shownPoints(points(1000), 10, { from: 0, to: 50 })).toEqual({ first: 0, end: 6 });
  expect(shownPoints(points(3), 10, { from: 500, to: 900 })).toEqual({ first: 2, end: 3 });
});

test('a line begins at the edge, runs through its points and goes on to the edge', () => {
  const made = points(3);
  const window = { from: 0, to: 400 };
  expect(linePath(line(made, [0, 1, 0.5], 100), shownPoints(made, 100, window), window)).toBe(
    'M0 100.0L0.0 100.0L100.0 0.0L200.0 50.0H400.0',
  );
});

test('where points crowd, each pixel shows how far they reach, and no more is drawn than there are pixels', () => {
  const made = points(50_000);
  const window = { from: 0, to: 400 };
  const shown = shownPoints(made, 400 / 50_000, window);
  expect(isCrowded(shown, window)).toBe(true);
  const path = linePath(
    line(
      made,
      made.map((_, i) => (i % 2 === 0 ? 0.2 : 0.9)),
      400 / 50_000,
    ),
    shown,
    window,
  );
  expect(path.match(/[ML]/g)).toHaveLength(800);
  expect(path).toContain('L200 9.4L');
  expect(path).toContain('L200 80.6L');
});
