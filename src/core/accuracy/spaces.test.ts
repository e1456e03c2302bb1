import { spacePromises } from './spaces';

test.each(spacePromises.map((promise) => [`${promise.effect}: ${promise.promise}`, promise] as const))(
  '%s',
  (_name, { measure, limit }) => {
    expect(measure()).toBeLessThan(limit);
  },
);
