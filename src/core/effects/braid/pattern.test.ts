import fc from 'fast-check';
import { MAX_STEPS, PATTERN_ORDERS, STEP_NOTES, stepBeats, strandAtStep, type StrandPattern } from './pattern';

type Order = (typeof PATTERN_ORDERS)[number];

const patternOf = (order: Order, strands: readonly number[], more: Partial<StrandPattern> = {}): StrandPattern => ({
  order: PATTERN_ORDERS.indexOf(order),
  steps: MAX_STEPS,
  roll: 1,
  strands,
  count: strands.length,
  row: [],
  rowStart: 0,
  ...more,
});
const played = (pattern: StrandPattern, count: number, from = 0): number[] =>
  Array.from({ length: count }, (_, i) => strandAtStep(pattern, from + i));

const strands = fc.subarray([1, 2, 3, 4, 5, 6, 7, 8], { minLength: 1 });
const roll = fc.integer({ min: 0, max: 999 });
const steps = fc.integer({ min: 1, max: MAX_STEPS });

test('the three ways through the strands that are there', () => {
  expect(played(patternOf('forward', [1, 2, 4]), 7)).toEqual([1, 2, 4, 1, 2, 4, 1]);
  expect(played(patternOf('backward', [1, 2, 4]), 7)).toEqual([4, 2, 1, 4, 2, 1, 4]);
  expect(played(patternOf('toAndFro', [1, 2, 4]), 9)).toEqual([1, 2, 4, 2, 1, 2, 4, 2, 1]);
  expect(played(patternOf('toAndFro', [3, 5]), 4)).toEqual([3, 5, 3, 5]);
});

test('a drawn row is played as it is drawn, rests and strands that are gone among them', () => {
  const row = [9, 9, 1, 0, 7, 2];
  expect(played(patternOf('drawn', [1, 2], { row, rowStart: 2, steps: 4 }), 6)).toEqual([1, 0, 7, 2, 1, 0]);
});

test('a pattern begins again after its steps, before the beginning of the piece too', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...PATTERN_ORDERS),
      strands,
      roll,
      steps,
      fc.integer({ min: -500, max: 500 }),
      (...of) => {
        const [order, there, thrown, count, step] = of;
        const row = Array.from({ length: MAX_STEPS }, (_, i) => i % 9);
        const pattern = patternOf(order, there, { roll: thrown, steps: count, row });
        expect(strandAtStep(pattern, step)).toBe(strandAtStep(pattern, step + count));
      },
    ),
  );
});

test('chance plays strands that are there, none twice in a row, all of them, and the same for the same roll', () => {
  fc.assert(
    fc.property(strands, roll, (there, thrown) => {
      const pattern = patternOf('thrown', there, { roll: thrown });
      const row = played(pattern, MAX_STEPS);
      expect(row).toEqual(played(patternOf('thrown', [...there], { roll: thrown }), MAX_STEPS));
      for (const strand of row) expect(there).toContain(strand);
      if (there.length > 1) for (let i = 1; i < row.length; i += 1) expect(row[i]).not.toBe(row[i - 1]);
      expect(new Set(row).size).toBe(there.length);
    }),
  );
});

test('lengths of a step go from the shortest to the longest, in any metre that has a bar of three quarters at least', () => {
  for (const beatsPerBar of [3.5, 4, 4.5, 6]) {
    const beats = STEP_NOTES.map((_, i) => stepBeats(i, beatsPerBar));
    expect([...beats].sort((a, b) => a - b)).toEqual(beats);
  }
  expect(stepBeats(STEP_NOTES.indexOf('1/8t'), 4)).toBeCloseTo(1 / 3, 12);
  expect(stepBeats(STEP_NOTES.indexOf('2 bars'), 3)).toBe(6);
});
