import { presetPromises } from './presets';

test.each(presetPromises.map((promise) => [`${promise.effect}: ${promise.promise}`, promise] as const))(
  '%s',
  (_name, { measure, limit }) => {
    expect(measure()).toBeLessThan(limit);
  },
);
