import * as fc from 'fast-check';
import { figure } from './make';
import { parseValue } from './parse';
import { PLAIN_CONTEXT } from './param';

const degrees = (max: number) =>
  figure({ label: 'Direction', group: 'Place', hint: 'Where it is.', unit: 'degrees', min: 0, max, initial: 0 });
const valueOf = (text: string): unknown => {
  const parsed = parseValue(degrees(360), text, PLAIN_CONTEXT);
  return parsed.ok ? parsed.value : parsed.message;
};

test('a direction to the left may be typed below zero', () => {
  expect([valueOf('-90'), valueOf('-90°'), valueOf('\u221290 deg'), valueOf('270')]).toEqual([270, 270, 270, 270]);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 360 }), (left) => {
      expect(valueOf(`-${left}`)).toBe(360 - left);
    }),
  );
  expect(valueOf('-361')).toMatch(/lies outside/);
});

test('a spread is no direction: it has no left', () => {
  expect(parseValue(degrees(180), '-90', PLAIN_CONTEXT).ok).toBe(false);
});
