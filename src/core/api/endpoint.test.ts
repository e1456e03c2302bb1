import fc from 'fast-check';
import { addressOf } from './endpoint';

const WHOLE = { path: '/pieces/:id/files/:name' };

test('parameters fill the path, and what is asked stands behind it', () => {
  expect(addressOf(WHOLE, { params: { id: 'p1', name: 'a b.wav' }, query: { bits: '16', name: undefined } })).toBe(
    '/api/pieces/p1/files/a%20b.wav?bits=16',
  );
  expect(addressOf({ path: '/pieces' })).toBe('/api/pieces');
});

test('whatever is in a parameter or a query comes back as it was, and leads to no other address', () => {
  const text = fc.string({ unit: 'grapheme', minLength: 1 }).filter((one) => one !== '.' && one !== '..');
  fc.assert(
    fc.property(text, text, text, (id, name, asked) => {
      const { pathname, searchParams } = new URL(
        addressOf(WHOLE, { params: { id, name }, query: { asked } }),
        'http://a',
      );
      expect(pathname.split('/').map(decodeURIComponent)).toEqual(['', 'api', 'pieces', id, 'files', name]);
      expect([...searchParams]).toEqual([['asked', asked]]);
    }),
  );
});

test.each(['.', '..'])('%s has no address', (id) => {
  expect(() => addressOf({ path: '/pieces/:id' }, { params: { id } })).toThrow(RangeError);
});
