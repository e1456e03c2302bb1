import { byLastOpened } from './usePieces';

const piece = (id: string, updatedAt: string) => ({ id, name: id, revision: 1, updatedAt, copyOf: null });

test('pieces are listed last opened first, those that never were by their last change', () => {
  const pieces = [
    piece('a', '2026-01-01'),
    piece('b', '2026-01-03'),
    piece('c', '2026-01-02'),
    piece('d', '2026-01-04'),
  ];
  const order = (opened: readonly string[]) => byLastOpened(pieces, opened).map(({ id }) => id);
  expect(order([])).toEqual(['d', 'b', 'c', 'a']);
  expect(order(['a', 'gone', 'c'])).toEqual(['a', 'c', 'd', 'b']);
});
