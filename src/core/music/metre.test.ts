import * as fc from 'fast-check';
import {
  barNumber,
  barsBetween,
  barsLater,
  barStart,
  barsText,
  barsUpTo,
  exactBarBeat,
  gridLine,
  placeByBars,
  toBarBeat,
} from './grid';
import { countOf, metreAt, metreName, metreOf, METRES, metreSpans } from './metre';
import type { Tempo } from './tempo';

const sixEight: Tempo = { bpm: 118, beatsPerBar: 3, unit: 8 };
/** Two bars of 4/4, three and a half of 6/8, then 5/4. */
const changing: Tempo = {
  bpm: 100,
  beatsPerBar: 4,
  metres: [
    { beat: 8, ...metreOf(6, 8) },
    { beat: 18.5, ...metreOf(5, 4) },
  ],
};

test('metres by name', () => {
  expect(METRES.map(([count, unit]) => metreName(metreOf(count, unit)))).toEqual(
    METRES.map(([count, unit]) => `${count}/${unit}`),
  );
  expect(countOf(metreOf(12, 8))).toBe(12);
});

test('a bar of 6/8 has six beats of an eighth', () => {
  expect([0, 0.5, 2.5, 3, 3.49, 6].map((beat) => toBarBeat(beat, sixEight))).toEqual([
    { bar: 1, beat: 1 },
    { bar: 1, beat: 2 },
    { bar: 1, beat: 6 },
    { bar: 2, beat: 1 },
    { bar: 2, beat: 1 },
    { bar: 3, beat: 1 },
  ]);
});

test('bars go on being counted where the metre changes, a bar that is cut short as one', () => {
  expect(metreSpans(changing).map(({ beat, firstBar, end }) => [beat, firstBar, end])).toEqual([
    [0, 1, 8],
    [8, 3, 18.5],
    [18.5, 7, Infinity],
  ]);
  expect([7, 8, 11, 17, 18.5, 23.5].map((beat) => toBarBeat(beat, changing).bar)).toEqual([2, 3, 4, 6, 7, 8]);
  expect([1, 3, 6, 7, 8].map((bar) => barStart(bar, changing))).toEqual([0, 8, 17, 18.5, 23.5]);
  expect(barsUpTo(23.5, changing)).toBe(7);
  expect(metreAt(18.49995, changing).beatsPerBar).toBe(5);
});

const tempi = fc
  .record({
    first: fc.constantFrom(...METRES),
    others: fc.array(fc.tuple(fc.integer({ min: 1, max: 40 }), fc.constantFrom(...METRES)), { maxLength: 5 }),
  })
  .map(({ first, others }): Tempo => {
    let beat = 0;
    const metres = others.map(([length, metre]) => {
      beat += length / 2;
      return { beat, ...metreOf(...metre) };
    });
    return { bpm: 100, ...metreOf(...first), metres };
  });

test('every bar begins at its own first beat, in any row of metres, and every beat lies in its bar', () => {
  fc.assert(
    fc.property(
      tempi,
      fc.integer({ min: 1, max: 60 }),
      fc.double({ min: 0, max: 150, noNaN: true }),
      (tempo, bar, beat) => {
        expect(toBarBeat(barStart(bar, tempo), tempo)).toEqual({ bar, beat: 1 });
        const within = toBarBeat(beat, tempo).bar;
        expect(barStart(within, tempo)).toBeLessThanOrEqual(beat + 1e-3);
        expect(Math.min(barStart(within + 1, tempo), metreAt(beat, tempo).end)).toBeGreaterThan(beat - 1e-3);
      },
    ),
  );
});

test('lines of a grid begin anew with each metre, which is a line itself', () => {
  expect([7.2, 8.1, 15, 17.5, 18.6].map((beat) => gridLine(beat, 4, changing))).toEqual([8, 12, 16, 18.5, 22.5]);
  fc.assert(
    fc.property(
      tempi,
      fc.constantFrom(0.25, 0.5, 1, 3, 4, 8),
      fc.double({ min: 0, max: 150, noNaN: true }),
      (tempo, grid, beat) => {
        const line = gridLine(beat, grid, tempo);
        expect(line).toBeGreaterThanOrEqual(beat - 1e-4);
        expect(line - beat).toBeLessThanOrEqual(grid + 1e-4);
        expect(gridLine(line, grid, tempo)).toBeCloseTo(line, 9);
      },
    ),
  );
});

test('parts of bars are found and found again, and a stretch is told in bars', () => {
  fc.assert(
    fc.property(tempi, fc.double({ min: 0, max: 200, noNaN: true }), (tempo, beat) => {
      expect(barStart(barNumber(beat, tempo), tempo)).toBeCloseTo(beat, 6);
      const exact = exactBarBeat(beat, tempo);
      const { unit } = metreAt(beat, tempo);
      expect(exact.bar).toBe(toBarBeat(beat, tempo).bar);
      expect(barStart(exact.bar, tempo) + ((exact.beat - 1) * 4) / unit).toBeCloseTo(beat, 6);
    }),
  );
  expect(barsText(0, 18.5, changing)).toBe('bars 1 to 7');
  expect(barsText(9.5, 21, changing)).toBe('bars 3.5 to 7.5');
});

test('so many bars later is that many bar lines on, and places by bars go on evenly', () => {
  expect([1, 2, 3, -1].map((bars) => barsLater(4, bars, changing))).toEqual([8, 11, 14, 0]);
  expect(barsBetween(4, 14, changing)).toBe(3);
  const spans = metreSpans(changing);
  expect([0, 4, 8, 11, 18.5, 23.5].map((beat) => placeByBars(beat, spans, 4))).toEqual([0, 4, 8, 12, 24, 28]);
  expect(placeByBars(7.25, metreSpans(sixEight), 3)).toBe(7.25);
});
