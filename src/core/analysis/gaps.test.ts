import fc from 'fast-check';
import { between } from '../testing';
import { gapOnGrid, gapsBetween, soundingSpans } from './gaps';

test('gaps and what sounds never overlap, and together they are the whole but for what is too short', () => {
  const spans = fc
    .array(fc.record({ start: between(0, 60), length: between(0.1, 12) }), { maxLength: 12 })
    .map((list) => list.map(({ start, length }) => ({ start, end: Math.min(64, start + length) })));
  fc.assert(
    fc.property(spans, between(0, 63.99), (list, at) => {
      const gaps = gapsBetween(list, 64, 1);
      const sounds = list.some(({ start, end }) => at > start && at < end);
      const free = gaps.some(({ start, end }) => at > start && at < end);
      if (sounds && free) return false;
      const before = list.filter(({ end }) => end <= at).reduce((latest, { end }) => Math.max(latest, end), 0);
      const after = list.filter(({ start }) => start >= at).reduce((first, { start }) => Math.min(first, start), 64);
      return sounds || free || after - before < 1 || at <= before || at >= after;
    }),
  );
});

test('silence inside a sound parts it, a breath does not', () => {
  const peaks = Float32Array.from({ length: 100 }, (_, i) => (i < 20 || (i >= 25 && i < 40) || i >= 80 ? 0.5 : 0.0001));
  expect(soundingSpans(peaks, 0.1, { start: 0, end: 10 }, 0.003, 1)).toEqual([
    { start: 0, end: 4 },
    { start: 8, end: 10 },
  ]);
  expect(
    soundingSpans(peaks, 0.1, { start: 1, end: 9 }, 0.003, 0.2).map(({ start, end }) => [
      Number(start.toFixed(6)),
      Number(end.toFixed(6)),
    ]),
  ).toEqual([
    [0, 1],
    [1.5, 3],
    [7, 8],
  ]);
});

test('a gap is rounded inwards to the grid', () => {
  expect(gapOnGrid({ start: 15.2, end: 24 }, 1)).toEqual({ start: 16, end: 24 });
  expect(gapOnGrid({ start: 15.2, end: 15.9 }, 1)).toBeNull();
});
