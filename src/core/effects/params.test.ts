import fc from 'fast-check';
import { between } from '../testing';
import { EFFECTS } from './catalogue';
import { dbToGain, gainToDb, describeTime, formatDb, formatHz, formatMs, formatValue } from '../params/format';
import { notchesOf, scaledTime, settingAt, stepSetting } from '../params/notches';
import { parseValue } from '../params/parse';
import { PLAIN_CONTEXT, type NumberParam, type Param, type ParamValue } from '../params/param';
import { paramAtPosition, paramPosition, resolveNumber, toEngineNumber } from '../params/resolve';
import { paramSchema } from '../params/schema';
import { isVisible } from './visibleWhen';

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
    ['timeL', '1/8d', '1/8d'],
    ['timeL', '250 ms', 250],
    ['timeL', '0.25 s', 250],
    ['timeL', '250', 250],
    ['timeL', '480 samples', '480 samples'],
    ['timeL', 'dotted eighth', '1/8d'],
    ['timeL', '2 bars', '2 bars'],
    ['feedback', '66 %', 0.66],
    ['feedback', '50', 0.5],
    ['cutoff', '3,2 kHz', 3200],
    ['cutoff', '800', 800],
    ['rateReduction', 'off', 48_000],
    ['bitDepth', '12 bit', 12],
    ['eqLow', '−6 dB', -6],
    ['wowRate', '1 bar', '1 bar'],
  ])('%s: "%s"', (id, text, expected) => expect(value(echo[id]!, text)).toEqual(expected));

  test('-6 dB is a level of 0.501 and 100 % of feedback', () => {
    expect(value(echo.wet!, '-6 dB')).toBeCloseTo(0.5012, 4);
    expect(value(echo.feedback!, '0 dB')).toBe(1);
  });

  test.each([
    ['timeL', 'soon'],
    ['timeL', '20 s'],
    ['feedback', '130 %'],
    ['feedback', '1/8'],
    ['cutoff', '5 ms'],
    ['routing', 'sideways'],
    ['linked', 'maybe'],
  ])('%s refuses "%s" with what it takes', (id, text) => {
    const parsed = parseValue(echo[id]!, text, context);
    expect(parsed).toMatchObject({ ok: false });
    expect(parsed.ok ? '' : parsed.message).toMatch(/Try|goes from|can be|is on or off/);
  });
});

test('a time shows note, ms and samples at once', () => {
  expect(formatValue(echo.timeL!, '1/8d', context)).toBe('dotted eighth · 489 ms');
  expect(describeTime((1000 * 45) / 92, context)).toEqual({
    note: 'dotted eighth',
    exact: true,
    ms: '489 ms',
    samples: '23478.3 samples',
  });
});

/** Half of the last figure that is shown of a value, in the unit that it is compared in. */
function halfFigure({ unit }: NumberParam, value: number): number {
  if (unit === 'gain' || unit === 'db') return 0.05;
  if (unit === 'ratio' || unit === 'pan') return 0.005;
  if (unit === 'degrees') return 0.5;
  const size = Math.abs(value);
  return unit === 'octaves' || unit === 'percent' ? Math.max(0.05 * size, 0.005) : Math.max(0.005 * size, 0.0005);
}

/** As it is shown: levels in decibels. */
const shownAs = ({ unit }: NumberParam, value: number): number => (unit === 'gain' ? gainToDb(value) : value);

test('what a rail shows is read back as what it was, to the digits shown', () => {
  fc.assert(
    fc.property(fc.constantFrom(...numbers), between(0, 1), (param, position) => {
      const number = paramAtPosition(param, position);
      const text = formatValue(param, number, context);
      const parsed = parseValue(param, text, context);
      if (!parsed.ok) return false;
      const back = resolveNumber(param, parsed.value, context);
      // What is a hair from where it is off reads back as off, and what is too low to be told in decibels as silence.
      if (back === (param.offAt === 'min' ? param.min : param.offAt && param.max) || text === 'silent') return true;
      const [was, is] = [shownAs(param, number), shownAs(param, back)];
      return formatValue(param, back, context) === text && Math.abs(is - was) <= 1.001 * halfFigure(param, was);
    }),
    { numRuns: 3000 },
  );
});

/** Where what is shown changes its unit, its sign or its number of figures. */
const EDGES = [0, 0.05, 0.1, 1, 10, 100, 999.5, 1000, 1e4, 99_950, 1e5, -0.05, -0.5, -1, -10, -120];

test('near every change of unit, sign and figures, what is shown is read back as what is shown the same', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...numbers),
      fc.constantFrom(...EDGES),
      fc.constantFrom(1, 1000, 0.001, 0.01),
      between(-1, 1),
      (param, edge, scale, off) => {
        const raw = edge * scale * (1 + off * 1e-3) + (edge === 0 ? off * 1e-3 : 0);
        const value = param.unit === 'gain' ? dbToGain(raw) : raw;
        if (value < param.min || value > param.max) return true;
        const text = formatValue(param, value, context);
        const parsed = parseValue(param, text, context);
        if (!parsed.ok) return /outside/.test(parsed.message);
        const back = resolveNumber(param, parsed.value, context);
        return (
          back === (param.offAt === 'min' ? param.min : param.offAt && param.max) ||
          formatValue(param, back, context) === text
        );
      },
    ),
    { numRuns: 5000 },
  );
});

test('999.87 Hz is shown as 1 kHz, 9999.6 ms as 10 s, and what rounds to nothing has no sign', () => {
  expect([formatHz(999.87), formatHz(999.4), formatMs(9999.6), formatMs(9999.4)]).toEqual([
    '1 kHz',
    '999 Hz',
    '10 s',
    '9999 ms',
  ]);
  expect([formatDb(0.04), formatDb(0.05), formatDb(-0.04), formatDb(-0.06)]).toEqual([
    '0.0 dB',
    '+0.1 dB',
    '0.0 dB',
    '\u22120.1 dB',
  ]);
});

test('position and value are each other’s inverse and rise together', () => {
  fc.assert(
    fc.property(fc.constantFrom(...numbers), between(0, 1), between(0, 1), (param, a, b) => {
      const inverse = Math.abs(paramPosition(param, paramAtPosition(param, a)) - a) < 1e-9;
      return inverse && (Math.abs(a - b) < 1e-6 || a < b === paramAtPosition(param, a) < paramAtPosition(param, b));
    }),
  );
});

test('every rail position gives a value its own schema takes', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...all),
      between(0, 1),
      between(0, 0.05),
      (param, position, reach) =>
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
  expect(resolveNumber(echo.timeL as NumberParam, '4 bars', { ...context, tempo: { bpm: 40, beatsPerBar: 4 } })).toBe(
    8000,
  );
});

describe('when parameters are shown', () => {
  test('every condition names a parameter of the effect, and a value that it can have', () => {
    for (const { id, params, visibleWhen, editorParts = [] } of EFFECTS) {
      const parts = editorParts.map(({ after, when }) => [after, when ? [when] : []] as const);
      for (const [param, conditions] of [...Object.entries(visibleWhen), ...parts]) {
        expect([id, param in params]).toEqual([id, true]);
        for (const condition of conditions) {
          if ('strand' in condition) continue;
          const about = params[condition.param]!;
          const value = 'is' in condition ? condition.is : 'isNot' in condition ? condition.isNot : condition.atLeast;
          expect([id, param, paramSchema(about).safeParse(value).success]).toEqual([id, param, true]);
        }
      }
    }
  });

  test('taps by their number, strands by what is there, levels instead of the mix', () => {
    const shown = (id: string, values: Record<string, string | number | boolean>, strands?: { place: number }[]) => {
      const definition = EFFECTS.find((effect) => effect.id === id)!;
      return definition.paramIds.filter((param) => isVisible(definition, param, { values, strands }));
    };
    const taps = shown('taps', { count: 3, balance: 'levels' });
    expect(taps.filter((id) => /^time\d/.test(id))).toEqual(['time1', 'time2', 'time3']);
    expect(taps.filter((id) => ['mix', 'dry', 'wet'].includes(id))).toEqual(['dry', 'wet']);
    expect(shown('braid', { plays: 'all' }, [{ place: 2 }]).filter((id) => /^level|chosen/.test(id))).toEqual([
      'level2',
    ]);
    expect(shown('echo', {})).not.toContain('timeR');
    expect(shown('echo', { linked: false })).toContain('timeR');
  });
});
