import fc from 'fast-check';
import { printOrderSchema } from '../../../core/piece/piece';
import { goesTo, partOf, printDefaults, printOrders, type PrintFormValues, type PrintMaterial } from './printOrders';

const hit = (beat: number) => ({ beat, strength: 1 }) as PrintMaterial['hits'][number];
const material: PrintMaterial = {
  clip: 'c',
  whole: { fromBeat: 4, toBeat: 12 },
  hits: [2, 4, 6, 9, 13].map(hit),
  effects: ['echo', 'reverb'],
};
const ordersOf = (change: Partial<PrintFormValues>, of: Partial<PrintMaterial> = {}) =>
  printOrders({ ...printDefaults('t'), ...change }, { ...material, ...of });

test('the form begins with the wet sound of all of it, which rings until it is silent and goes to the Shelf', () => {
  expect(ordersOf({})).toEqual([{ channel: 't', clip: 'c', fromBeat: 4, toBeat: 12, part: 'wet', tailBars: null }]);
});

test('both, each by itself, are two orders that differ in their part alone', () => {
  const [wet, dry, ...others] = ordersOf({ part: 'both', tail: '2 bars', goes: 'track' });
  expect(wet).toMatchObject({ part: 'wet', tailBars: 2, goes: 'track' });
  expect(dry).toEqual({ ...wet, part: 'dry' });
  expect(others).toEqual([]);
});

test.each([
  ['silent', null],
  ['cut', 0],
  ['1 bar', 1],
  ['2 bars', 2],
  ['4 bars', 4],
] as const)('a tail "%s" is %s bars', (tail, tailBars) => {
  const [order] = ordersOf({ tail });
  expect(order!.tailBars).toBe(tailBars);
  expect(order).not.toHaveProperty('untilBeat');
});

test('to the next hit it rings until the first hit at or after its end, or until silent where there is none', () => {
  expect(ordersOf({ tail: 'hit' })[0]).toMatchObject({ tailBars: null, untilBeat: 13 });
  expect(ordersOf({ tail: 'hit' }, { whole: { fromBeat: 4, toBeat: 9 } })[0]).toMatchObject({ untilBeat: 9 });
  expect(ordersOf({ tail: 'hit' }, { hits: [] })[0]).not.toHaveProperty('untilBeat');
});

test('picked hits each reach to the next hit, the last to the end of the stretch', () => {
  // Inside are those at 4, 6 and 9.
  const [order] = ordersOf({ picking: true, picked: [2, 0] });
  expect(order).toMatchObject({ fromBeat: 4, toBeat: 12 });
  expect(order!.hits).toEqual([
    { from: 4, to: 6 },
    { from: 9, to: 12 },
  ]);
  expect(ordersOf({ picking: true, picked: [] })).toEqual([]);
});

test('effects are named only where some are left out; without any the plain sound is printed', () => {
  expect(ordersOf({ omitted: ['elsewhere'] })[0]).not.toHaveProperty('effects');
  expect(ordersOf({ omitted: ['echo'] })[0]!.effects).toEqual(['reverb']);
  const none = ordersOf({ omitted: ['reverb', 'echo'], part: 'both' });
  expect(none).toHaveLength(1);
  expect(none[0]).toMatchObject({ part: 'mix', effects: [] });
  expect(ordersOf({ part: 'wet' }, { effects: [] })[0]).toMatchObject({ part: 'mix' });
  expect(partOf({ ...printDefaults('t'), part: 'wet' }, ['echo'])).toBe('wet');
});

test('only a whole clip is replaced by its print', () => {
  const instead = { ...printDefaults('t'), goes: 'instead' } as const;
  expect(goesTo(instead, 'c')).toBe('instead');
  expect(goesTo(instead, null)).toBe('track');
  expect(goesTo({ ...instead, picking: true }, 'c')).toBe('track');
  expect(ordersOf({ goes: 'instead' }, { clip: null })[0]!.goes).toBe('track');
});

test('whatever is chosen, every order is valid and inside the stretch', () => {
  const ids = fc.subarray(['echo', 'reverb', 'gone']);
  const beats = fc.uniqueArray(fc.double({ min: 0, max: 40, noNaN: true }), { maxLength: 12 });
  fc.assert(
    fc.property(
      fc.record({
        source: fc.constantFrom('t', 'main'),
        picking: fc.boolean(),
        picked: fc.uniqueArray(fc.nat(12)),
        omitted: ids,
        part: fc.constantFrom('wet' as const, 'mix' as const, 'both' as const),
        tail: fc.constantFrom(...(['silent', 'cut', '1 bar', '2 bars', '4 bars', 'hit'] as const)),
        goes: fc.constantFrom('shelf' as const, 'track' as const, 'instead' as const),
      }),
      beats,
      fc.double({ min: 0, max: 30, noNaN: true }),
      fc.double({ min: 0.1, max: 20, noNaN: true }),
      (values, at, fromBeat, length) => {
        const whole = { fromBeat, toBeat: fromBeat + length };
        const hits = [...at].sort((a, b) => a - b).map(hit);
        const orders = printOrders(values, { clip: null, whole, hits, effects: ['echo', 'reverb'] });
        return orders.every(
          (order) =>
            printOrderSchema.safeParse(order).success &&
            order.fromBeat >= whole.fromBeat - 0.01 &&
            order.toBeat <= whole.toBeat &&
            order.fromBeat < order.toBeat &&
            (order.hits ?? []).every(({ from, to }) => from < to && from >= order.fromBeat && to <= order.toBeat),
        );
      },
    ),
  );
});
