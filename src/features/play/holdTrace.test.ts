import fc from 'fast-check';
import { barsPath, headPath, HoldTrace, BINS } from './holdTrace';

/** Level of bin n. */
const levelOf = (bin: number): number => 0.1 + 0.9 * ((bin * 7) % 11 > 4 ? 1 : 0.3);

function passed(bins: number): HoldTrace {
  const trace = new HoldTrace();
  for (let bin = 0; bin <= bins; bin += 1) {
    trace.addLevel(bin + 0.2, 0.5 * levelOf(bin));
    trace.addLevel(bin + 0.7, levelOf(bin));
    trace.addLevel(bin + 0.9, 0.01);
  }
  return trace;
}

test('the highest level of each bin is shown, as far as sound has passed, most of it from before the start', () => {
  const trace = passed(100);
  trace.begin(100.9);
  const shown = Array.from({ length: BINS }, (_, i) => trace.levelAt(i));
  expect(shown).toEqual(
    Array.from({ length: BINS }, (_, i) => (trace.from + i <= 100 ? Math.fround(levelOf(trace.from + i)) : 0)),
  );
  expect(shown.filter((level) => level > 0).length).toBe(19);
  expect(barsPath(trace, 72, 20).match(/M/g)).toHaveLength(BINS);
});

test('wherever a hold reads, its head is shown, and what is shown turns no farther than it has to', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 2000 }),
      fc.array(fc.double({ min: -300, max: 300, noNaN: true }), { minLength: 1, maxLength: 20 }),
      (begins, ways) => {
        const trace = passed(0);
        trace.begin(begins);
        for (const way of ways) {
          const before = trace.from;
          const head = begins + way;
          trace.followHead(head);
          const [share] = trace.headPositions();
          expect(share).toBeCloseTo((head - trace.from) / BINS, 9);
          if (head >= before && head < before + BINS) expect(trace.from).toBe(before);
        }
      },
    ),
  );
});

test('places before time began, after now, or too long ago are silent, whatever is noted', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 1e5, noNaN: true }), { minLength: 1, maxLength: 30 }), (moments) => {
      const trace = new HoldTrace();
      for (const moment of moments) trace.addLevel(moment, 0.8);
      const now = moments.at(-1)!;
      for (const head of [now - 290, -5, now + 30]) {
        trace.followHead(head);
        for (let i = 0; i < BINS; i += 1) {
          const bin = trace.from + i;
          if (bin > now || bin < 0 || bin < now - 257) expect(trace.levelAt(i)).toBe(0);
          else expect([0, Math.fround(0.8)]).toContain(trace.levelAt(i));
        }
      }
    }),
  );
});

test('the head is as tall as what is heard over the loudest that passed, and leaves points where it was', () => {
  const trace = new HoldTrace();
  for (let bin = 0; bin < 20; bin += 1) trace.addLevel(bin, 0.5);
  trace.begin(20);
  for (const head of [10, 11, 12]) trace.followHead(head);
  const heads = headPath(trace, 0.25, 72, 20).split('M').slice(1);
  expect(heads).toEqual([
    `${(((12 - 2) / BINS) * 72).toFixed(1)} 5.0v10.0`,
    `${(((11 - 2) / BINS) * 72).toFixed(1)} 10.0v0.1`,
    `${(((10 - 2) / BINS) * 72).toFixed(1)} 10.0v0.1`,
  ]);
  expect(headPath(trace, 9, 72, 20)).toContain('0.0v20.0');
  expect(headPath(trace, 0, 72, 20)).toContain('8.0v4.0');
});
