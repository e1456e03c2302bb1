import { spacePromises } from './spaces';

test.each(
  spacePromises
    .filter(({ slow }) => !slow)
    .map((promise) => [`${promise.effect}: ${promise.promise}`, promise] as const),
)('%s', (_name, { measure, limit }) => {
  expect(measure()).toBeLessThan(limit);
});
