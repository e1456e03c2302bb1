import fc from 'fast-check';
import { between } from '../testing';
import { EFFECTS } from '../effects/catalogue';
import { describeTime, formatValue } from './format';
import { notchesOf, scaledTime, settingAt, stepSetting } from './notches';
import { parseValue } from './parse';
import { PLAIN_CONTEXT, type NumberParam, type Param, type ParamValue } from './param';
import { paramAtPosition, paramPosition, resolveNumber, toEngineNumber } from './resolve';
import { paramSchema } from './schema';

const context = { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: 48_000 };
const all = EFFECTS.flatMap((effect) => Object.values(effect.params));
const numbers = all.filter((param): param is NumberParam => param.kind === 'number');
const echo = EFFECTS.find((effect) => effect.id === 'echo')!.params;
const value = (param: Param, text: string): ParamValue => {
  const parsed = parseValue(param, text, context);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value;
};

describe('typed entry', () => {
  test.each([
    ['timeL', '1/8d', '1/8d'], ['timeL', '250 ms', 250], ['timeL', '0.25 s', 250], ['timeL', '250', 250], ['timeL', '480 samples', '480 samples'],
    ['timeL', 'dotted eighth', '1/8d'], ['timeL', '2 bars', '2 bars'], ['feedback', '66 %', 0.66], ['feedback', '50', 0.5], ['cutoff', '3,2 kHz', 3200],
    ['cutoff', '800', 800], ['rateReduction', 'off', 48_000], ['bitDepth', '12 bit', 12], ['eqLow', '−6 dB', -6], ['wowRate', '1 bar', '1 bar'],
  ])('%s: "%s"', (id, text, expected) => expect(value(echo[id]!, text)).toEqual(expected));

  test('-6 dB is a level of 0.501 and 100 % of feedback', () => {
    expect(value(echo.wet!, '-6 dB')).toBeCloseTo(0.5012, 4);
    expect(value(echo.feedback!, '0 dB')).toBe(1);
  });

  test.each([['timeL', 'soon'], ['timeL', '20 s'], ['feedback', '130 %'], ['feedback', '1/8'], ['cutoff', '5 ms'], ['routing', 'sideways'], ['linked', 'maybe']])(
    '%s refuses "%s" with what it takes',
    (id, text) => {
      const parsed = parseValue(echo[id]!, text, context);
      expect(parsed).toMatchObject({ ok: false });
      expect(parsed.ok ? '' : parsed.message).toMatch(/Try|goes from|can be|is on or off/);
    },
  );
});

test('a time shows note, ms and samples at once', () => {
  expect(formatValue(echo.timeL!, '1/8d', context)).toBe('dotted eighth · 489 ms');
  expect(describeTime((1000 * 45) / 92, context)).toEqual({ note: 'dotted eighth', exact: true, ms: '489 ms', samples: '23478.3 samples' });
});

test('what a rail shows is read back as what it was, to the digits shown', () => {
  fc.assert(
    fc.property(fc.constantFrom(...numbers), between(0, 1), (param, position) => {
      const number = paramAtPosition(param, position);
      const text = formatValue(param, number, context);
      const parsed = parseValue(param, text, context);
      if (!parsed.ok) return false;
      const back = resolveNumber(param, parsed.value, context);
      const coarse = param.unit === 'gain' || param.unit === 'db' ? 0.06 : param.unit === 'octaves' || param.unit === 'percent' ? 0.02 : 0.006;
      // What is a hair from where it is off reads back as off.
      const same = formatValue(param, back, context) === text || back === (param.offAt === 'min' ? param.min : param.offAt && param.max);
      return same && Math.abs(paramPosition(param, back) - position) < coarse + 0.01;
    }),
    { numRuns: 1000 },
  );
});

test('position and value are each other’s inverse and rise together', () => {
  fc.assert(
    fc.property(fc.constantFrom(...numbers), between(0, 1), between(0, 1), (param, a, b) => {
      const inverse = Math.abs(paramPosition(param, paramAtPosition(param, a)) - a) < 1e-9;
      return inverse && (Math.abs(a - b) < 1e-6 || (a < b) === (paramAtPosition(param, a) < paramAtPosition(param, b)));
    }),
  );
});

test('every rail position gives a value its own schema takes', () => {
  fc.assert(
    fc.property(fc.constantFrom(...all), between(0, 1), between(0, 0.05), (param, position, reach) =>
      paramSchema(param).safeParse(settingAt(param, position, PLAIN_CONTEXT, reach)).success,
    ),
  );
});

test('steps by key go from note to note, and every initial value lies on its own rail', () => {
  expect(stepSetting(echo.timeL!, '1/8d', context, 1, 'normal')).toBe('1/4');
  expect(stepSetting(echo.timeL!, '1/8d', context, -1, 'normal')).toBe('1/4t');
  expect(notchesOf(echo.timeL!, context).map((notch) => notch.value)).toContain('1/64t');
  for (const param of all) {
    const number = toEngineNumber(param, param.initial, context);
    expect(paramAtPosition(param, paramPosition(param, number))).toBeCloseTo(number, 6);
  }
});

test('half and double of a note value stay note values', () => {
  const time = echo.timeL as NumberParam;
  expect(scaledTime(time, '1/8d', context, 2)).toBe('1/4d');
  expect(scaledTime(time, '1/8d', context, 0.5)).toBe('1/16d');
  expect(scaledTime(time, 250, context, 2)).toBe(500);
});

test('a synced time is held inside its range when the tempo is slow', () => {
  expect(resolveNumber(echo.timeL as NumberParam, '4 bars', { ...context, tempo: { bpm: 40, beatsPerBar: 4 } })).toBe(8000);
});
