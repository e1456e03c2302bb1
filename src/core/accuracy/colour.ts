import { amplitudeAt } from '../dsp/testing';
import { db, runWet, sine } from '../effects/testing';
import { reductionAt } from '../effects/compressor/processor';
import { makeRandom } from '../dsp/random';
import { responseAt } from '../analysis/spectrum';
import type { ParamValue } from '../params/param';
import { worst, type Accuracy } from './measure';

const RATE = 48_000;
type Values = Readonly<Record<string, ParamValue>>;

/**
 * Frequency of a tone near `hz` in each interval of a number of samples, by the drift of its phase against a tone of
 * that frequency.
 */
function trackedHz(samples: Float64Array, hz: number, from: number, frame = RATE / 100): number[] {
  const phases: number[] = [];
  for (let at = from; at + frame <= samples.length; at += frame) {
    let [re, im] = [0, 0];
    for (let i = at; i < at + frame; i += 1) {
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * (i - at)) / frame);
      re += window * samples[i]! * Math.cos((2 * Math.PI * hz * i) / RATE);
      im -= window * samples[i]! * Math.sin((2 * Math.PI * hz * i) / RATE);
    }
    phases.push(Math.atan2(im, re));
  }
  return phases.slice(1).map((phase, i) => {
    const turned = phase - phases[i]!;
    return hz + ((turned - 2 * Math.PI * Math.round(turned / (2 * Math.PI))) * RATE) / frame / (2 * Math.PI);
  });
}

const centsOf = (found: number, wanted: number): number => 1200 * Math.log2(found / wanted);

/** Farthest deviation of a vibrato against `1 + 2 pi rate depth`, in percent of it. */
function vibratoError(hz: number, rate: number, depth: number): number {
  const out = runWet('chorus', { mode: 'vibrato', rate, depth, delay: 12 }, { seconds: 3, input: sine(hz, 0.5) });
  const ratio = 2 * Math.PI * rate * (depth / 1000);
  // A window of 10 ms attenuates the modulation a little: by the windowed mean of a sine.
  const found = trackedHz(out.left, hz, RATE);
  const swing = (Math.max(...found) - Math.min(...found)) / 2 / hz;
  return 100 * (swing / (ratio * blur(rate)) - 1);
}

/** Attenuation of a modulation at `rate` by the distance of two windows. */
const blur = (rate: number): number => Math.sin((Math.PI * rate) / 100) / ((Math.PI * rate) / 100);

function flangerError(delay: number): number {
  const grid = Array.from({ length: 8000 }, (_, i) => 60 * Math.pow(300, i / 8000));
  const { left } = runWet('flanger', { delay, depth: 0 }, { seconds: 1, input: (i) => (i === 0 ? 1 : 0) });
  const found = responseAt(left, grid, RATE);
  const dips = grid
    .filter(
      (_, i) =>
        i > 0 && i < grid.length - 1 && found[i]! < -15 && found[i]! < found[i - 1]! && found[i]! <= found[i + 1]!,
    )
    .filter((hz) => hz < 8000);
  const wanted = Array.from({ length: 200 }, (_, k) => (1000 * (2 * k + 1)) / (2 * delay)).filter((hz) => hz < 8000);
  return dips.length === wanted.length ? worst(dips.map((hz, i) => 100 * (hz / wanted[i]! - 1))) : 100;
}

/** Level of the unwanted tone above -50 dB relative to the wanted one. */
function imageOver(shift: number, blend: 1 | -1): number {
  return Math.max(
    ...[60, 440, 3000, 9000, 15_000].map((hz) => {
      const out = runWet('shifter', { shift, blend }, { seconds: 1.2, input: sine(hz, 0.5) }).left;
      const level = (at: number): number => amplitudeAt(out, Math.abs(at), RATE / 5, RATE / 5 + RATE);
      return db(level(hz - blend * shift)) - db(level(hz + blend * shift)) + 50;
    }),
  );
}

const power = (samples: Float64Array): number =>
  10 * Math.log10(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);

/** Rise of the level by fewer bits, beyond 1 dB. */
function crushOver(): number {
  const random = makeRandom(9);
  const noise = Float64Array.from({ length: 2 * RATE }, () => 0.12 * (random() - 0.5));
  const inputs = [sine(220, 0.03), sine(220, 0.5), (i: number): number => noise[i % noise.length]!];
  return Math.max(
    ...inputs.flatMap((input) =>
      [1, 2, 3, 5, 8, 12].flatMap((bits) =>
        [0, 0.5].map((bias) => {
          const out = runWet('crush', { rate: RATE, bits, bias }, { seconds: 4, input }).left;
          const whole = Float64Array.from({ length: RATE }, (_, i) => input(3 * RATE + i));
          return power(out.subarray(3 * RATE, 4 * RATE)) - power(whole) - 1;
        }),
      ),
    ),
  );
}

/**
 * First sideband of a tone with sinusoidal phase modulation, against Bessel functions: its level below the tone, in dB.
 */
function gritError(): number {
  const [hz, shaken, amount] = [2000, 300, 0.06];
  const { left } = runWet(
    'grit',
    { kind: 'sine', frequency: shaken, amount, apart: 0 },
    { seconds: 1.5, input: sine(hz, 0.5) },
  );
  const index = 2 * Math.PI * hz * (amount / 1000);
  const level = (at: number): number => amplitudeAt(left, at, RATE / 2, RATE / 2 + RATE);
  return worst(
    [hz + shaken, hz - shaken].map((at) => db(level(at) / level(hz)) - db(bessel(1, index) / bessel(0, index))),
  );
}

/** Bessel function of the first kind, by its integral over a period. */
const bessel = (order: number, x: number): number =>
  Array.from({ length: 2000 }, (_, i) =>
    Math.cos((order * (i + 0.5) * Math.PI) / 2000 - x * Math.sin(((i + 0.5) * Math.PI) / 2000)),
  ).reduce((sum, y) => sum + y, 0) / 2000;

function compressorError(threshold: number, ratio: number, knee: number): number {
  return worst(
    [-50, -40, -30, -22, -15, -8, -2].map((level) => {
      const { left } = runWet(
        'compressor',
        { threshold, ratio, knee, attack: 5, release: 2000 },
        { seconds: 2, input: sine(997, Math.pow(10, level / 20)) },
      );
      return db(amplitudeAt(left, 997, RATE, 2 * RATE)) - (level - reductionAt(level - threshold, 1 - 1 / ratio, knee));
    }),
  );
}

/** A pattern on the grid: the middle of each step against what it was set to. */
function gateError(): number {
  const heights = [1, 0, 0.5, 0, 1, 0.25, 0, 0.75];
  const values = Object.fromEntries(heights.map((height, i) => [`step${i + 1}`, height]));
  const { left } = runWet(
    'gate',
    { rate: '1/16', length: 8, smooth: 5, ...values },
    { seconds: 2, bpm: 120, input: () => 1 },
  );
  return worst(
    heights.flatMap((height, i) =>
      [0, 1].map((turn) => left[Math.round((turn * 8 + i + 0.5) * 0.125 * RATE)]! - height),
    ),
  );
}

const pitched = (named: Values, hz: number): number => {
  const semitones = Number(named.semitones ?? 0) + Number(named.cents ?? 0) / 100;
  const wanted = hz * Math.pow(2, semitones / 12);
  const { left } = runWet('pitch', named, {
    seconds: 3,
    input: (i) => [1, 2, 3, 4].reduce((sum, n) => sum + (0.3 / n) * Math.sin((2 * Math.PI * hz * n * i) / RATE), 0),
  });
  const found = trackedHz(left, wanted, RATE, RATE / 5).sort((a, b) => a - b);
  return centsOf(found[found.length >> 1]!, wanted);
};

const FORMANT_HZ = 1150;
const FORMANT_WIDTH_HZ = 260;

/**
 * Error of the formant of a voice-like tone after a shift, in percent: its peak is found by a parabola through the
 * three highest harmonics.
 */
function formantError(semitones: number, formantShift: number): number {
  const hz = 110;
  const formant = (at: number): number => Math.exp(-0.5 * ((at - FORMANT_HZ) / FORMANT_WIDTH_HZ) ** 2);
  const voice = (i: number): number =>
    Array.from(
      { length: 30 },
      (_, n) => 0.2 * (0.003 + formant(hz * (n + 1))) * Math.sin((2 * Math.PI * hz * (n + 1) * i) / RATE + n * n),
    ).reduce((sum, x) => sum + x, 0);
  const { left } = runWet('pitch', { semitones, formants: 'keep', formantShift }, { seconds: 2, input: voice });
  const step = hz * Math.pow(2, semitones / 12);
  const levels = Array.from({ length: 30 }, (_, n) =>
    Math.log(amplitudeAt(left, step * (n + 1), RATE / 2, RATE / 2 + RATE) + 1e-9),
  );
  const wanted = FORMANT_HZ * Math.pow(2, formantShift / 12);
  const top = levels.indexOf(Math.max(...levels));
  const [a, b, c] = [levels[top - 1]!, levels[top]!, levels[top + 1]!];
  return 100 * ((step * (top + 1 + (0.5 * (a - c)) / (a - 2 * b + c))) / wanted - 1);
}

/** Regular grains that overlap twice preserve a constant level. */
function grainsError(): number {
  const { left } = runWet(
    'grains',
    { time: 200, scatter: 0.1, density: 40, size: 50, regular: 1, detune: 0, spread: 0 },
    { seconds: 2, input: sine(200, 0.5) },
  );
  return amplitudeAt(left, 200, RATE, 2 * RATE) - 0.5;
}

export const colourPromises: readonly Accuracy[] = [
  {
    effect: 'Chorus',
    promise: 'how far its vibrato bends the pitch, as computed from rate and depth',
    unit: '%',
    limit: 2,
    measure: () => worst([vibratoError(1000, 2, 3), vibratoError(440, 5, 1)]),
  },
  ...[0.5, 1.4, 3.1].map((delay): Accuracy => ({
    effect: 'Flanger',
    promise: `${delay} ms: notches at odd multiples of half its inverse`,
    unit: '%',
    limit: 1,
    measure: () => flangerError(delay),
  })),
  {
    effect: 'Shifter',
    promise: 'image over -50 dB, up and down',
    unit: 'dB',
    limit: 0,
    measure: () => Math.max(imageOver(37, 1), imageOver(510, -1)),
  },
  { effect: 'Crush', promise: 'louder by more than 1 dB as bits fall, by', unit: 'dB', limit: 0, measure: crushOver },
  { effect: 'Grit', promise: 'side tones of a shaken tone against Bessel', unit: 'dB', limit: 0.2, measure: gritError },
  ...[
    [-18, 3, 0],
    [-30, 8, 12],
    [-24, 20, 6],
  ].map(([threshold, ratio, knee]): Accuracy => ({
    effect: 'Compressor',
    promise: `static curve at ${threshold} dB, ${ratio} to 1, knee ${knee} dB`,
    unit: 'dB',
    limit: 0.2,
    measure: () => compressorError(threshold!, ratio!, knee!),
  })),
  {
    effect: 'Gate',
    promise: 'each step of a pattern on the grid stands where it was set',
    unit: 'of full scale',
    limit: 1e-6,
    measure: gateError,
  },
  ...[-24, -12, -5, 7, 12, 24].map((semitones): Accuracy => ({
    effect: 'Pitch',
    promise: `${semitones} semitones by the spectrum`,
    unit: 'cents',
    limit: 3,
    measure: () => worst([pitched({ semitones, formants: 'follow' }, 220), pitched({ semitones, cents: 30 }, 330)]),
  })),
  ...[-12, -5, 7, 12].map((semitones): Accuracy => ({
    effect: 'Pitch',
    promise: `${semitones} semitones by grains`,
    unit: 'cents',
    limit: 3,
    measure: () => worst([pitched({ semitones, quality: 'grains' }, 220)]),
  })),
  ...[
    [-7, 0],
    [7, 0],
    [12, 0],
    [0, 4],
  ].map(([semitones, shift]): Accuracy => ({
    effect: 'Pitch',
    promise: `formants ${shift === 0 ? 'kept' : `moved by ${shift}`} at ${semitones} semitones`,
    unit: '%',
    limit: 3,
    measure: () => worst([formantError(semitones!, shift!)]),
  })),
  {
    effect: 'Grains',
    promise: 'an even stream lets a steady tone through',
    unit: 'of full scale',
    limit: 0.01,
    measure: () => Math.abs(grainsError()),
  },
];
