import { responseAt } from '../analysis/spectrum';
import { makeRandom } from '../dsp/random';
import { TRUE_PEAK_DELAY, TruePeak } from '../dsp/truePeak';
import { EDGE_DELAY } from '../effects/limiter/edgeBand';
import { interauralSeconds } from '../effects/placer/geometry';
import { amplitudeAt, arrival, db, impulse, runWet, sine } from '../effects/testing';
import type { ParamValue } from '../params/param';
import { apart, worst, type Accuracy } from './measure';

const RATE = 48_000;
const HZ = [50, 120, 300, 700, 1000, 1600, 3000, 6000, 11_000, 17_000];

/** Response of an effect's left side in dB. */
const responseOf = (effect: string, named: Readonly<Record<string, ParamValue>>, hz = HZ): number[] =>
  responseAt(runWet(effect, named, { seconds: 1, input: (i) => (i === 0 ? 0.01 : 0) }).left.map((x) => x * 100), hz, RATE);

/** The bilinear transform's own frequency, as a ratio to the corner: theory is an analogue filter seen through it. */
const warped = (hz: number, corner: number): number => Math.tan((Math.PI * hz) / RATE) / Math.tan((Math.PI * corner) / RATE);

/** |H|^2 of a Butterworth filter. */
const butterworth = (ratio: number, order: number, high: boolean): number => 1 / (1 + Math.pow(high ? 1 / ratio : ratio, 2 * order));

function filterError(kind: string, slope: string): number {
  const corner = 1200;
  const order = slope === '24' ? 4 : 2;
  const theory = HZ.map((hz) => {
    const w = warped(hz, corner);
    if (kind === 'low' || kind === 'high') return 10 * Math.log10(butterworth(w, order, kind === 'high'));
    const across = kind === 'band' ? (2 * w * w) / ((1 - w * w) ** 2 + 2 * w * w) : (1 - w * w) ** 2 / ((1 - w * w) ** 2 + 2 * w * w);
    return 10 * Math.log10(across);
  });
  const found = responseOf('filter', { kind, slope, cutoff: corner });
  return worst(found.map((level, i) => (theory[i]! < -80 ? 0 : level - theory[i]!)));
}

/** Bell of the audio EQ cookbook's analogue prototype (R. Bristow-Johnson, 1998). */
function bellError(gainDb: number, q: number): number {
  const a = Math.pow(10, gainDb / 40);
  const theory = HZ.map((hz) => {
    const w = warped(hz, 2600);
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
    const w = warped(hz, 140);
    return 10 * Math.log10((a * a * ((a - w * w) ** 2 + (k * w) ** 2)) / ((1 - a * w * w) ** 2 + (k * w) ** 2));
  });
  const found = responseOf('eq', { lowHz: 140, lowDb: gainDb });
  return worst(found.map((level, i) => level - low[i]!));
}

function phaserError(stages: number): number {
  const centre = 800;
  const notches = Array.from({ length: stages / 2 }, (_, k) => (RATE / Math.PI) * Math.atan(Math.tan((Math.PI * centre) / RATE) * Math.tan(((2 * k + 1) * Math.PI) / (2 * stages))));
  const grid = Array.from({ length: 6000 }, (_, i) => 20 * Math.pow(1000, i / 6000));
  const found = responseOf('phaser', { stages, centre, depth: 0 }, grid);
  const dips = grid.filter((_, i) => i > 0 && i < grid.length - 1 && found[i]! < -20 && found[i]! < found[i - 1]! && found[i]! <= found[i + 1]!);
  if (dips.length !== notches.length) return 100;
  return worst(dips.map((hz, i) => 100 * (hz / notches[i]! - 1)));
}

function tremoloError(): number {
  const out = runWet('tremolo', { rate: 2, depth: 0.7, phase: 90, start: 0 }, { seconds: 1, input: () => 1 });
  const curve = (turns: number): number => 1 - 0.35 * (1 - Math.sin(2 * Math.PI * turns));
  return Math.max(apart(out.left, Float64Array.from(out.left, (_, i) => curve((2 * i) / RATE))), apart(out.right, Float64Array.from(out.right, (_, i) => curve((2 * i) / RATE + 0.25))));
}

/** By how many dB a true-peak meter stands over the ceiling. */
function limiterOver(): number {
  const random = makeRandom(3);
  return Math.max(...[-1, -6].map((ceiling) => {
    const out = runWet('limiter', { ceiling, gain: 12, release: 30 }, { seconds: 4, input: (i) => (i % 9000 < 4500 ? 0.9 * Math.sin(i * 1.571 + 0.8) : random() * 1.8 - 0.9) });
    const meter = new TruePeak();
    return db(out.left.reduce((most, x) => Math.max(most, meter.next(x)), 0)) - ceiling;
  }));
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
  return worst(responseAt(out.left.map((x, i) => 0.5 * (x + out.right[i]!)), HZ, RATE));
};

export const tonePromises: readonly Accuracy[] = [
  ...['low', 'high', 'band', 'notch'].map((kind): Accuracy => ({ effect: 'Filter', promise: `${kind}, 12 dB: response against theory`, unit: 'dB', limit: 0.1, measure: () => filterError(kind, '12') })),
  ...['low', 'high'].map((kind): Accuracy => ({ effect: 'Filter', promise: `${kind}, 24 dB: response against theory`, unit: 'dB', limit: 0.1, measure: () => filterError(kind, '24') })),
  { effect: 'EQ', promise: 'bells of +9 and -15 dB against theory', unit: 'dB', limit: 0.1, measure: () => worst([bellError(9, 1), bellError(-15, 3)]) },
  { effect: 'EQ', promise: 'low shelf of +8 and -12 dB against theory', unit: 'dB', limit: 0.1, measure: () => worst([shelfError(8), shelfError(-12)]) },
  ...[2, 4, 8, 12].map((stages): Accuracy => ({ effect: 'Phaser', promise: `${stages} stages: ${stages / 2} notches, each in its place`, unit: '%', limit: 1, measure: () => phaserError(stages) })),
  { effect: 'Tremolo', promise: 'the gain curve on both sides', unit: 'of full scale', limit: 1e-4, measure: tremoloError },
  { effect: 'Limiter', promise: 'true peak over its ceiling', unit: 'dB', limit: 0, measure: limiterOver },
  {
    effect: 'Limiter', promise: 'below the ceiling it only delays', unit: 'of full scale', limit: 1e-9,
    measure: () => { const tone = sine(300, 0.3); const out = runWet('limiter', { ceiling: -1, lookAhead: 2 }, { seconds: 0.5, input: tone }); const delay = 95 + EDGE_DELAY + TRUE_PEAK_DELAY; return apart(out.left.subarray(delay), Float64Array.from(out.left, (_, i) => tone(i)).subarray(0, out.left.length - delay)); },
  },
  {
    effect: 'Width', promise: 'mid and side exact', unit: 'of full scale', limit: 1e-12,
    measure: () => {
      const [l, r] = [sine(500, 0.4), sine(830, 0.3)];
      const out = runWet('width', { mid: -6, side: 3 }, { seconds: 0.2, input: l, right: r });
      const [m, s] = [Math.pow(10, -6 / 20), Math.pow(10, 3 / 20)];
      return apart(out.left, Float64Array.from(out.left, (_, i) => 0.5 * m * (l(i) + r(i)) + 0.5 * s * (l(i) - r(i))));
    },
  },
  {
    effect: 'Width', promise: 'mono below 150 Hz: side at 75 Hz, in dB under theory of 24 dB an octave', unit: 'dB', limit: 0.1,
    measure: () => {
      const tone = sine(75, 0.5);
      const out = runWet('width', { bassMono: 150 }, { seconds: 1, input: tone, right: (i) => -tone(i) });
      return worst([db(amplitudeAt(out.left, 75, 24_000, 48_000) / 0.5) - 10 * Math.log10(butterworth(warped(75, 150), 4, true))]);
    },
  },
  { effect: 'Widener', promise: 'combs sum back to mono', unit: 'dB', limit: 0.5, measure: () => worst([monoSum({ amount: 1, delay: 11 }), monoSum({ amount: 0.6, delay: 3.3 })]) },
  { effect: 'Widener', promise: 'offsets, mono-safe, sum back to mono', unit: 'dB', limit: 0.5, measure: () => monoSum({ method: 'offset', amount: 1, delay: 17 }) },
  ...[15, 40, 75, 90, 240, 300].map((direction): Accuracy => ({ effect: 'Placer', promise: `time between the ears at ${direction} degrees against the spherical head`, unit: '%', limit: 10, measure: () => worst([placerError(direction)]) })),
  {
    effect: 'Utility', promise: 'gain, phase and mono exact', unit: 'of full scale', limit: 1e-12,
    measure: () => {
      const [l, r] = [sine(500, 0.4), sine(830, 0.3)];
      const out = runWet('utility', { gain: -6, turnLeft: true, mono: true }, { seconds: 0.2, input: l, right: r });
      const g = Math.pow(10, -6 / 20);
      return apart(out.right, Float64Array.from(out.left, (_, i) => 0.5 * g * (r(i) - l(i))));
    },
  },
];
