import * as fc from 'fast-check';
import { matchesWords } from './matchesWords';

test('every word has to be in the name, anywhere and in any order', () => {
  expect(matchesWords('Hum, answer · Echo wet', 'wet hum')).toBe(true);
  expect(matchesWords('Hum, answer · Echo wet', 'hum dry')).toBe(false);
  expect(matchesWords('anything', '  ')).toBe(true);
});

test('any part of a name finds it, whatever the case', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme-ascii', minLength: 1 }), fc.nat(), fc.nat(), (name, a, b) => {
      const [from, to] = [a % name.length, b % (name.length + 1)].sort((x, y) => x - y);
      expect(matchesWords(name, name.slice(from, to).toUpperCase())).toBe(true);
    }),
  );
});
