import FFT from 'fft.js';
import { makeRandom } from '../dsp/random';
import { EFFECTS } from '../effects/catalogue';
import { BAND_LIMITER_DELAY } from '../effects/limiter/bandLimiter';
import { TRUE_PEAK_DELAY } from '../dsp/truePeak';
import { db, impulse, runWet, sine } from '../effects/testing';
import { treat } from '../engine/treat';
import type { ParamValue } from '../params/param';
import { newSlot } from '../piece/edits/chain';
import { apart, type Accuracy } from './measure';

type Named = Readonly<Record<string, ParamValue>>;

const RATES = [44_100, 48_000, 96_000];

/**
 * Highest level between samples, by sixteen times as many from the transform: a second method beside the meter's own
 * kernel.
 */
export function truePeakByTransform(samples: Float64Array): number {
  const size = 4096;
  const up = 16;
  const [plain, fine] = [new FFT(size), new FFT(size * up)];
  const [few, many, read] = [plain.createComplexArray(), fine.createComplexArray(), fine.createComplexArray()];
  let most = 0;
  for (let from = 0; from + size <= samples.length; from += size / 2) {
    plain.realTransform(few, Array.from(samples.subarray(from, from + size)));
    many.fill(0);
    for (let k = 0; k < size / 2; k += 1) {
      many[2 * k] = few[2 * k]! * up;
      many[2 * k + 1] = few[2 * k + 1]! * up;
      if (k === 0) continue;
      many[2 * (size * up - k)] = few[2 * k]! * up;
      many[2 * (size * up - k) + 1] = -few[2 * k + 1]! * up;
    }
    fine.inverseTransform(read, many);
    // The transform is circular, so that only the middle of a block is exact.
    for (let i = (size * up) / 4; i < (size * up * 3) / 4; i += 1) most = Math.max(most, Math.abs(read[2 * i]!));
  }
  return most;
}

/** By how many dB noise and hats with energy up to half the sample rate exceed a limiter's ceiling. */
function limiterOver(): number {
  const over = RATES.flatMap((sampleRate) =>
    [-0.3, -2.3, -7].flatMap((ceiling) =>
      [0.5, 2, 7].map((lookAhead) => {
        const random = makeRandom(7);
        const input = (i: number): number =>
          i < 24_000 ? 2 * random() - 1 : (2.8 * random() - 1.4) * Math.exp(-(i % 6000) / 700);
        const { left } = runWet('limiter', { ceiling, gain: 6, lookAhead }, { sampleRate, seconds: 1, input });
        return db(truePeakByTransform(left)) - ceiling;
      }),
    ),
  );
  return Math.max(...over);
}

/**
 * Effects whose wet sound at neutral is the input, delayed or scaled at most: half of it mixed with the dry sound is
 * flat.
 */
const LIKE_THE_DRY: readonly (readonly [string, Named])[] = [
  ...['1', '2', '4', '8'].map((oversampling) => ['drive', { oversampling, match: false, drive: 0 }] as const),
  ['flanger', { throughZero: true, depth: 0, place: 0 }],
  ['pitch', { quality: 'grains' }],
  ['pitch', { quality: 'spectrum' }],
  ['grit', {}],
  ['limiter', {}],
  ['limiter', { lookAhead: 5 }],
  ['compressor', {}],
  ['width', {}],
  ['utility', {}],
  ['eq', {}],
  ['crush', {}],
  ['sideDelay', { time: 0 }],
  ['braid', {}],
];

/** Span of the response at half mix between 50 Hz and 15 kHz, in dB. */
function unevenness(effect: string, named: Named, sampleRate: number): number {
  const size = 32_768;
  const sound = new Float32Array(size);
  // Later than any look-ahead, so that a part that comes too early would show as well.
  sound[7001] = 0.25;
  const slot = newSlot('s', effect, 'neutral', { balance: 'linear', mix: 0.5, ...named });
  const { left } = treat({
    sound: [sound, sound],
    sampleRate,
    bpm: 97,
    chain: [slot],
    tail: { kind: 'seconds', seconds: 0 },
    hear: 'mix',
  })!;
  const transform = new FFT(size);
  const bins = transform.createComplexArray();
  transform.realTransform(
    bins,
    Array.from({ length: size }, (_, i) => left[i] ?? 0),
  );
  let [least, most] = [Infinity, -Infinity];
  for (let k = Math.ceil((50 * size) / sampleRate); k < (15_000 * size) / sampleRate; k += 1) {
    const level = db(Math.hypot(bins[2 * k]!, bins[2 * k + 1]!));
    least = Math.min(least, level);
    most = Math.max(most, level);
  }
  return most - least;
}

/** By how many dB an effect whose wet sound resembles the dry is louder at half mix than at none. */
function liftAtHalf(effect: string): number {
  const n = 24_000;
  const random = makeRandom(5);
  const sound = Float32Array.from({ length: n }, () => 0.2 * (random() - 0.5));
  const { left } = treat({
    sound: [sound, sound],
    sampleRate: 48_000,
    bpm: 97,
    chain: [newSlot('s', effect, 'neutral', { mix: 0.5 })],
    tail: { kind: 'seconds', seconds: 0 },
    hear: 'mix',
  })!;
  const power = (samples: Float32Array): number => samples.subarray(4000, 20_000).reduce((sum, x) => sum + x * x, 0);
  return Math.abs(10 * Math.log10(power(left) / power(sound)));
}

const STEADY = ['width', 'utility', 'eq', 'limiter', 'compressor', 'crush', 'grit', 'braid'];

/** Highest level in the first tenth of a second of a quiet tone after silence, over the tone's own peak, in dB. */
function startOver(effect: string, named: Named, level: number, sampleRate: number): number {
  const { left } = runWet(effect, named, {
    sampleRate,
    seconds: 0.7,
    input: (i) => (i < 0.5 * sampleRate ? 0 : level * Math.sin((2 * Math.PI * 311 * i) / sampleRate)),
  });
  return db(left.reduce((most, x) => Math.max(most, Math.abs(x)), 0) / level);
}

const MATCHED: readonly Named[] = [
  { drive: 24 },
  { drive: 48, curve: 'fold' },
  { curve: 'transistor', drive: 20 },
  { curve: 'hard', drive: 30, oversampling: '8' },
  { curve: 'soft', drive: 22 },
  { curve: 'drawn', drive: 31 },
];

/** Farthest that a step's gain is from its height, and that a change is from its time, as a share. */
function gateError(): number {
  const heights = [0.25, 0.75, 0.1, 1, 0.5, 0.33, 0, 0.9];
  const named = Object.fromEntries(heights.map((height, i) => [`step${i + 1}`, height]));
  const { left } = runWet(
    'gate',
    { ...named, length: 8, rate: 4, open: 1, swing: 0, smooth: 20, depth: 1 },
    { bpm: 113, seconds: 2, input: () => 1 },
  );
  return Math.max(
    ...heights.map((height, i) => Math.abs(left[Math.round((i + 0.9) * 12_000)]! - height)),
    ...heights.slice(1).map((height, i) => Math.abs(left[(i + 1) * 12_000 + 480 - 1]! - 0.5 * (height + heights[i]!))),
  );
}

export const levelPromises: readonly Accuracy[] = [
  {
    effect: 'Mix',
    promise: 'half mix of what is like the dry is flat, 50 Hz to 15 kHz, at three rates',
    unit: 'dB',
    limit: 0.5,
    measure: () =>
      Math.max(...LIKE_THE_DRY.flatMap(([effect, named]) => RATES.map((rate) => unevenness(effect, named, rate)))),
  },
  {
    effect: 'Mix',
    promise: 'half mix of an effect that leaves the sound alike is as loud',
    unit: 'dB',
    limit: 0.3,
    measure: () => Math.max(...STEADY.map(liftAtHalf)),
  },
  {
    effect: 'Drive',
    promise: 'matched from its first sample: never over the peak that comes in',
    unit: 'dB',
    limit: 0.2,
    measure: () =>
      Math.max(
        ...MATCHED.flatMap((named) =>
          [0.03, 0.1, 0.5].flatMap((level) => RATES.map((rate) => startOver('drive', named, level, rate))),
        ),
      ),
  },
  {
    effect: 'Compressor',
    promise: 'make-up lifts no attack over what came in, by more than a dB',
    unit: 'dB',
    limit: 1.1,
    measure: () =>
      Math.max(
        ...[0.1, 0.4, 0.9].map((level) =>
          startOver(
            'compressor',
            { threshold: -40, ratio: 12, attack: 3, release: 600, knee: 12, makeUp: 16 },
            level,
            48_000,
          ),
        ),
      ),
  },
  {
    effect: 'Limiter',
    promise: 'true peak of full-band noise and hats over its ceiling, by the transform',
    unit: 'dB',
    limit: 0.1,
    measure: limiterOver,
  },
  {
    effect: 'Limiter',
    promise: 'its latency is told',
    unit: 'samples',
    limit: 0.5,
    measure: () => {
      const out = runWet('limiter', { ceiling: -1, lookAhead: 2 }, { seconds: 0.05, input: (i) => 0.1 * impulse(i) });
      return Math.abs(out.left.indexOf(Math.max(...out.left)) - (95 + BAND_LIMITER_DELAY + TRUE_PEAK_DELAY));
    },
  },
  {
    effect: 'Gate / Chop',
    promise: 'a step’s height is its gain, and smoothing its time',
    unit: 'of full scale',
    limit: 0.01,
    measure: gateError,
  },
  {
    effect: 'Mix',
    promise: 'effects that take nothing give nothing away: dry alone is the sound itself',
    unit: 'of full scale',
    limit: 1e-6,
    measure: () => {
      const tone = Float32Array.from({ length: 9000 }, (_, i) => sine(440, 0.3)(i));
      return Math.max(
        ...EFFECTS.map(({ id }) => {
          const slot = newSlot('s', id, 'neutral', { balance: 'levels', dry: 1, wet: 0 });
          const { left } = treat({
            sound: [tone, tone],
            sampleRate: 48_000,
            bpm: 97,
            chain: [slot],
            tail: { kind: 'seconds', seconds: 0 },
            hear: 'mix',
          })!;
          return id === 'chorus'
            ? 0
            : apart(Float64Array.from(left.subarray(0, 8000)), Float64Array.from(tone.subarray(0, 8000)));
        }),
      );
    },
  },
];
