import { EFFECTS } from '../effects/catalogue';
import { PROMISES } from './all';

test.each(PROMISES.map((promise) => [`${promise.effect}: ${promise.promise}`, promise] as const))('%s', (_name, { measure, limit }) => {
  expect(measure()).toBeLessThan(limit);
});

test('every effect has something measured', () => {
  const measured = new Set(PROMISES.map(({ effect }) => effect.split(',')[0]));
  expect(EFFECTS.map(({ name }) => name).filter((name) => !measured.has(name))).toEqual([]);
});
