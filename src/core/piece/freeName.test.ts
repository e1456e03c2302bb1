import { freeName } from './freeName';

test('a name that is taken gets the first free number', () => {
  expect(freeName('Tide', [])).toBe('Tide');
  expect(freeName('Tide', ['Tide', 'Tide 3'])).toBe('Tide 2');
  expect(freeName('Tide', ['Tide', 'Tide 2', 'Tide 3'])).toBe('Tide 4');
});
