import { EFFECTS } from '../effects/catalogue';
import { PROMISES } from './all';
import { presetPromises } from './presets';
import { spacePromises } from './spaces';

/** Those that take long have a test file of their own, so that several run at a time. */
const ELSEWHERE = new Set([...presetPromises, ...spacePromises]);

test.each(
  PROMISES.filter((promise) => !ELSEWHERE.has(promise)).map(
    (promise) => [`${promise.effect}: ${promise.promise}`, promise] as const,
  ),
)('%s', (_name, { measure, limit }) => {
  expect(measure()).toBeLessThan(limit);
});

test('every effect has something measured', () => {
  const measured = new Set(PROMISES.map(({ effect }) => effect.split(',')[0]));
  expect(EFFECTS.map(({ name }) => name).filter((name) => !measured.has(name))).toEqual([]);
});
