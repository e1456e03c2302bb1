import { amplitudeAt } from '../dsp/testing';
import { responseAt } from '../analysis/spectrum';
import { makeRandom } from '../dsp/random';
import { TRUE_PEAK_DELAY, TruePeak } from '../dsp/truePeak';
import { BAND_LIMITER_DELAY } from '../effects/limiter/bandLimiter';
import { interauralSeconds } from '../effects/placer/geometry';
import { arrival, db, impulse, runWet, sine } from '../effects/testing';
import type { ParamValue } from '../params/param';
import { apart, worst, type Accuracy } from './measure';

const RATE = 48_000;
const HZ = [50, 120, 300, 700, 1000, 1600, 3000, 6000, 11_000, 17_000];

/** Response of an effect's left side in dB. */
const responseOf = (effect: string, named: Readonly<Record<string, ParamValue>>, hz = HZ): number[] =>
  responseAt(
    runWet(effect, named, { seconds: 1, input: (i) => (i === 0 ? 0.01 : 0) }).left.map((x) => x * 100),
    hz,
    RATE,
  );

/** |H|^2 of a Butterworth filter. */
const butterworth = (ratio: number, order: number, high: boolean): number =>
  1 / (1 + Math.pow(high ? 1 / ratio : ratio, 2 * order));

function filterError(kind: string, slope: string): number {
  const corner = 1200;
  const order = slope === '24' ? 4 : 2;
  const theory = HZ.map((hz) => {
    const w = hz / corner;
    if (kind === 'low' || kind === 'high') return 10 * Math.log10(butterworth(w, order, kind === 'high'));
    const across =
      kind === 'band'
        ? (2 * w * w) / ((1 - w * w) ** 2 + 2 * w * w)
        : (1 - w * w) ** 2 / ((1 - w * w) ** 2 + 2 * w * w);
    return 10 * Math.log10(across);
  });
  const found = responseOf('filter', { kind, slope, cutoff: corner });
  return worst(found.map((level, i) => (theory[i]! < -80 ? 0 : level - theory[i]!)));
}

/** Bell of the audio EQ cookbook's analogue prototype (R. Bristow-Johnson, 1998). */
function bellError(gainDb: number, q: number): number {
  const a = Math.pow(10, gainDb / 40);
  const theory = HZ.map((hz) => {
    const w = hz / 2600;
    const real = (1 - w * w) ** 2;
    return 10 * Math.log10((real + ((w * a) / q) ** 2) / (real + (w / (a * q)) ** 2));
  });
  const found = responseOf('eq', { edgeHz: 2600, edgeDb: gainDb, edgeQ: q });
  return worst(found.map((level, i) => level - theory[i]!));
}

/** Shelves of the same source, with a Q of 0.7071. */
function shelfError(gainDb: number): number {
  const a = Math.pow(10, gainDb / 40);
  const k = Math.sqrt(a) * Math.SQRT2;
  const low = HZ.map((hz) => {
    const w = hz / 140;
    return 10 * Math.log10((a * a * ((a - w * w) ** 2 + (k * w) ** 2)) / ((1 - a * w * w) ** 2 + (k * w) ** 2));
  });
  const found = responseOf('eq', { lowHz: 140, lowDb: gainDb });
  return worst(found.map((level, i) => level - low[i]!));
}

type Model = (hz: number) => number;
type Named = Readonly<Record<string, ParamValue>>;

const CORNERS = [87, 733, 2900, 6100, 9300, 11_700, 13_900, 16_300];
const FINE_HZ = Array.from({ length: 90 }, (_, i) => 20 * Math.pow(900, i / 89));
/** Squared magnitude of `1 - r^2 + i r / q`. */
const square = (r: number, q: number): number => (1 - r * r) ** 2 + (r / q) ** 2;

/** Maximum deviation of a response from a squared magnitude, where that is above -60 dB, in dB. */
function analogueError(effect: string, named: Named, model: Model, sampleRate: number): number {
  const { left } = runWet(effect, named, { sampleRate, seconds: 1, input: (i) => (i === 0 ? 0.01 : 0) });
  const found = responseAt(
    left.map((x) => x * 100),
    FINE_HZ,
    sampleRate,
  );
  return worst(FINE_HZ.map((hz, i) => (10 * Math.log10(model(hz)) < -60 ? 0 : found[i]! - 10 * Math.log10(model(hz)))));
}

const filterModels =
  (kind: string, top: (r: number, q: number) => number) =>
  (corner: number): (readonly [Named, Model])[] =>
    [0, 0.35].map((resonance) => {
      const q = 0.707107 * Math.pow(14, resonance);
      return [{ kind, cutoff: corner, resonance }, (hz) => top(hz / corner, q) / square(hz / corner, q)] as const;
    });

const bellModels = (corner: number): (readonly [Named, Model])[] =>
  (
    [
      [9, 1],
      [-17, 0.5],
      [24, 3],
    ] as const
  ).map(([db, q]) => {
    const a = Math.pow(10, db / 40);
    return [
      { edgeHz: corner, edgeDb: db, edgeQ: q },
      (hz) => square(hz / corner, q / a) / square(hz / corner, q * a),
    ] as const;
  });

const shelfModels = (corner: number): (readonly [Named, Model])[] =>
  [8, -13, 21].flatMap((db) => {
    const a = Math.pow(10, db / 40);
    const low: Model = (hz) => (a * a * (a * a + (hz / corner) ** 4)) / (1 + (a * (hz / corner) ** 2) ** 2);
    return [
      [{ lowHz: corner, lowDb: db }, low],
      [{ highHz: corner, highDb: db }, (hz) => (a * a) ** 2 / low(hz)],
    ] as const;
  });

const ANALOGUE: readonly (readonly [string, string, number, (corner: number) => (readonly [Named, Model])[]])[] = [
  ['Filter', 'low-pass', 20_000, filterModels('low', () => 1)],
  ['Filter', 'high-pass', 14_000, filterModels('high', (r) => r ** 4)],
  ['Filter', 'band-pass', 20_000, filterModels('band', (r, q) => (r / q) ** 2)],
  ['Filter', 'notch', 20_000, filterModels('notch', (r) => (1 - r * r) ** 2)],
  ['EQ', 'bells of +9, -17 and +24 dB', 20_000, bellModels],
  ['EQ', 'shelves of +8, -13 and +21 dB', 20_000, shelfModels],
];

function phaserError(stages: number): number {
  const centre = 800;
  const notches = Array.from(
    { length: stages / 2 },
    (_, k) =>
      (RATE / Math.PI) *
      Math.atan(Math.tan((Math.PI * centre) / RATE) * Math.tan(((2 * k + 1) * Math.PI) / (2 * stages))),
  );
  const grid = Array.from({ length: 6000 }, (_, i) => 20 * Math.pow(1000, i / 6000));
  const found = responseOf('phaser', { stages, centre, depth: 0 }, grid);
  const dips = grid.filter(
    (_, i) =>
      i > 0 && i < grid.length - 1 && found[i]! < -20 && found[i]! < found[i - 1]! && found[i]! <= found[i + 1]!,
  );
  if (dips.length !== notches.length) return 100;
  return worst(dips.map((hz, i) => 100 * (hz / notches[i]! - 1)));
}

function tremoloError(): number {
  const out = runWet('tremolo', { rate: 2, depth: 0.7, phase: 90, start: 0 }, { seconds: 1, input: () => 1 });
  const curve = (turns: number): number => 1 - 0.35 * (1 - Math.sin(2 * Math.PI * turns));
  return Math.max(
    apart(
      out.left,
      Float64Array.from(out.left, (_, i) => curve((2 * i) / RATE)),
    ),
    apart(
      out.right,
      Float64Array.from(out.right, (_, i) => curve((2 * i) / RATE + 0.25)),
    ),
  );
}

/** Reading of a true-peak meter over the ceiling, in dB. */
function limiterOver(): number {
  const random = makeRandom(3);
  return Math.max(
    ...[-1, -6].map((ceiling) => {
      const out = runWet(
        'limiter',
        { ceiling, gain: 12, release: 30 },
        { seconds: 4, input: (i) => (i % 9000 < 4500 ? 0.9 * Math.sin(i * 1.571 + 0.8) : random() * 1.8 - 0.9) },
      );
      const meter = new TruePeak();
      return db(out.left.reduce((most, x) => Math.max(most, meter.next(x)), 0)) - ceiling;
    }),
  );
}

/** Difference of the ears' arrivals from Woodworth's formula, in percent. */
function placerError(direction: number): number {
  const out = runWet('placer', { direction, distance: 2 }, { seconds: 0.05, input: impulse });
  const far = direction < 180 ? out.left : out.right;
  const near = direction < 180 ? out.right : out.left;
  const found = (arrival(far, 70, 70).at - arrival(near, 60, 60).at) / RATE;
  const lateral = Math.abs(Math.asin(Math.sin((direction * Math.PI) / 180)));
  return 100 * (found / interauralSeconds(lateral) - 1);
}

const monoSum = (named: Readonly<Record<string, ParamValue>>): number => {
  const out = runWet('widener', named, { seconds: 0.5, input: impulse });
  return worst(
    responseAt(
      out.left.map((x, i) => 0.5 * (x + out.right[i]!)),
      HZ,
      RATE,
    ),
  );
};

export const tonePromises: readonly Accuracy[] = [
  ...['low', 'high', 'band', 'notch'].map((kind): Accuracy => ({
    effect: 'Filter',
    promise: `${kind}, 12 dB: response against theory`,
    unit: 'dB',
    limit: 0.2,
    measure: () => filterError(kind, '12'),
  })),
  ...['low', 'high'].map((kind): Accuracy => ({
    effect: 'Filter',
    promise: `${kind}, 24 dB: response against theory`,
    unit: 'dB',
    limit: 0.3,
    measure: () => filterError(kind, '24'),
  })),
  ...ANALOGUE.map(([effect, promise, most, make]): Accuracy => ({
    effect,
    promise: `${promise} against its analogue, 20 Hz to 18 kHz, at 44.1 and 48 kHz`,
    unit: 'dB',
    limit: 0.5,
    measure: () =>
      worst(
        [44_100, 48_000].flatMap((rate) =>
          CORNERS.filter((corner) => corner <= most).flatMap((corner) =>
            make(corner).map(([named, model]) => analogueError(effect.toLowerCase(), named, model, rate)),
          ),
        ),
      ),
  })),
  {
    effect: 'EQ',
    promise: 'bells of +9 and -15 dB against theory',
    unit: 'dB',
    limit: 0.1,
    measure: () => worst([bellError(9, 1), bellError(-15, 3)]),
  },
  {
    effect: 'EQ',
    promise: 'low shelf of +8 and -12 dB against theory',
    unit: 'dB',
    limit: 0.1,
    measure: () => worst([shelfError(8), shelfError(-12)]),
  },
  ...[2, 4, 8, 12].map((stages): Accuracy => ({
    effect: 'Phaser',
    promise: `${stages} stages: ${stages / 2} notches, each in its place`,
    unit: '%',
    limit: 1,
    measure: () => phaserError(stages),
  })),
  {
    effect: 'Tremolo',
    promise: 'the gain curve on both sides',
    unit: 'of full scale',
    limit: 1e-4,
    measure: tremoloError,
  },
  { effect: 'Limiter', promise: 'true peak over its ceiling', unit: 'dB', limit: 0, measure: limiterOver },
  {
    effect: 'Limiter',
    promise: 'below the ceiling it only delays',
    unit: 'of full scale',
    limit: 1e-9,
    measure: () => {
      const tone = sine(300, 0.3);
      const out = runWet('limiter', { ceiling: -1, lookAhead: 2 }, { seconds: 0.5, input: tone });
      const delay = 95 + BAND_LIMITER_DELAY + TRUE_PEAK_DELAY;
      return apart(
        out.left.subarray(delay),
        Float64Array.from(out.left, (_, i) => tone(i)).subarray(0, out.left.length - delay),
      );
    },
  },
  {
    effect: 'Width',
    promise: 'mid and side exact',
    unit: 'of full scale',
    limit: 1e-12,
    measure: () => {
      const [l, r] = [sine(500, 0.4), sine(830, 0.3)];
      const out = runWet('width', { mid: -6, side: 3 }, { seconds: 0.2, input: l, right: r });
      const [m, s] = [Math.pow(10, -6 / 20), Math.pow(10, 3 / 20)];
      return apart(
        out.left,
        Float64Array.from(out.left, (_, i) => 0.5 * m * (l(i) + r(i)) + 0.5 * s * (l(i) - r(i))),
      );
    },
  },
  {
    effect: 'Width',
    promise: 'mono below 150 Hz: side at 75 Hz, in dB under theory of 24 dB an octave',
    unit: 'dB',
    limit: 0.1,
    measure: () => {
      const tone = sine(75, 0.5);
      const out = runWet('width', { bassMono: 150 }, { seconds: 1, input: tone, right: (i) => -tone(i) });
      return worst([
        db(amplitudeAt(out.left, 75, 24_000, 48_000) / 0.5) - 10 * Math.log10(butterworth(75 / 150, 4, true)),
      ]);
    },
  },
  {
    effect: 'Widener',
    promise: 'combs sum back to mono',
    unit: 'dB',
    limit: 0.5,
    measure: () => worst([monoSum({ amount: 1, delay: 11 }), monoSum({ amount: 0.6, delay: 3.3 })]),
  },
  {
    effect: 'Widener',
    promise: 'offsets, mono-safe, sum back to mono',
    unit: 'dB',
    limit: 0.5,
    measure: () => monoSum({ method: 'offset', amount: 1, delay: 17 }),
  },
  ...[15, 40, 75, 90, 240, 300].map((direction): Accuracy => ({
    effect: 'Placer',
    promise: `time between the ears at ${direction} degrees against the spherical head`,
    unit: '%',
    limit: 10,
    measure: () => worst([placerError(direction)]),
  })),
  {
    effect: 'Utility',
    promise: 'gain, phase and mono exact',
    unit: 'of full scale',
    limit: 1e-12,
    measure: () => {
      const [l, r] = [sine(500, 0.4), sine(830, 0.3)];
      const out = runWet('utility', { gain: -6, turnLeft: true, mono: true }, { seconds: 0.2, input: l, right: r });
      const g = Math.pow(10, -6 / 20);
      return apart(
        out.right,
        Float64Array.from(out.left, (_, i) => 0.5 * g * (r(i) - l(i))),
      );
    },
  },
];
