import { powerSpectrum } from '../analysis/spectrum';
import { makeRandom } from '../dsp/random';
import { implementationOf } from '../effects/implementations';
import { rowOf, runWet } from '../effects/testing';
import { blackmanHarris, worst, type Accuracy } from './measure';

const RATE = 48_000;
const SEMITONES = [-12, -7, -5, 3, 7, 12];
const HITS_AT = [12_000, 30_011, 47_013, 66_007, 90_001];
/** An onset is where a hit has reached this share of its energy. */
const ONSET_SHARE = 0.05;

/** A noise that falls within a twentieth of a second, a plucked tone, and a click of eight samples. */
const KINDS: Readonly<Record<string, (k: number, noise: number) => number>> = {
  noise: (k, noise) => noise * Math.exp(-k / 1200),
  tone: (k) => 0.5 * Math.sin((2 * Math.PI * 330 * k) / RATE) * Math.exp(-k / 3000),
  click: (k) => (k < 8 ? 0.8 * (1 - k / 8) : 0),
};

function onsetOf(samples: Float64Array, from: number, n: number): number {
  let whole = 0;
  for (let i = from; i < from + n; i += 1) whole += samples[i]! * samples[i]!;
  let sum = 0;
  let at = from;
  while (sum < ONSET_SHARE * whole) {
    sum += samples[at]! * samples[at]!;
    at += 1;
  }
  return at;
}

/** Largest timing error of five hits of a kind, in ms. */
function hitsOff(quality: 'spectrum' | 'grains', kind: string, semitones: number): number {
  const random = makeRandom(7);
  const dry = new Float64Array(2.5 * RATE);
  for (const at of HITS_AT) for (let k = 0; k < 6000; k += 1) dry[at + k] = KINDS[kind]!(k, random() - 0.5);
  const { left } = runWet('pitch', { quality, semitones }, { seconds: 2.5, input: (i) => dry[i] ?? 0 });
  const latency = latencyOf(quality);
  const early = 4800;
  return worst(
    HITS_AT.map((at) => {
      const made = onsetOf(left, at + latency - early, 2 * early) - latency;
      return ((made - onsetOf(dry, at, early)) / RATE) * 1000;
    }),
  );
}

function latencyOf(quality: 'spectrum' | 'grains'): number {
  const processor = implementationOf('pitch').createProcessor(RATE);
  processor.reset(0, rowOf('pitch', { quality }));
  return processor.latency ?? 0;
}

const FRAMES = 65_536;

/** Loudest partial that is not a shifted tone, in dB relative to the loudest that is. */
function sideTones(
  tones: readonly (readonly [hz: number, level: number])[],
  semitones: number,
  formants: string,
): number {
  const input = (i: number): number =>
    tones.reduce((sum, [hz, level], n) => sum + level * Math.sin((2 * Math.PI * hz * i) / RATE + n * n), 0);
  const { left } = runWet('pitch', { quality: 'spectrum', formants, semitones }, { seconds: 2.4, input });
  const windowed = left.slice(left.length - FRAMES - 64, left.length - 64).map((x, i) => x * blackmanHarris(i, FRAMES));
  const ratio = Math.pow(2, semitones / 12);
  const bin = RATE / FRAMES;
  let [tone, side] = [0, 0];
  powerSpectrum(windowed).forEach((power, k) => {
    const isTone = tones.some(([hz]) => Math.abs(k * bin - hz * ratio) < 7 * bin);
    if (isTone) tone = Math.max(tone, power);
    else if (k * bin > 20) side = Math.max(side, power);
  });
  return 10 * Math.log10(side / tone);
}

const single = (hz: number): (readonly [number, number])[] => [[hz, 0.5]];
const harmonics = (hz: number, count: number): (readonly [number, number])[] =>
  Array.from({ length: count }, (_, k) => [hz * (k + 1), 0.2 / (k + 1)] as const);
const loudestSide = (tones: readonly (readonly [number, number])[], formants: string): number =>
  Math.max(...[-12, -5, -2, 5, 12].map((semitones) => sideTones(tones, semitones, formants)));

export const hitPromises: readonly Accuracy[] = [
  ...(['spectrum', 'grains'] as const).flatMap((quality) =>
    Object.keys(KINDS).map((kind) => ({
      effect: 'Pitch',
      promise: `${quality}: hits (${kind}) stay in time, six shifts from -12 to 12 semitones`,
      unit: 'ms',
      limit: 2,
      measure: () => worst(SEMITONES.map((semitones) => hitsOff(quality, kind, semitones))),
    })),
  ),
  ...[110, 440, 1234.5, 3000].map((hz) => ({
    effect: 'Pitch',
    promise: `spectrum: what is beside a tone of ${hz} Hz, five shifts, formants kept or not, over -70 dB`,
    unit: 'dB',
    limit: 0,
    measure: () => 70 + Math.max(loudestSide(single(hz), 'keep'), loudestSide(single(hz), 'follow')),
  })),
  {
    effect: 'Pitch',
    promise: 'spectrum: what is beside twelve harmonics of 220 Hz, five shifts, formants kept or not, over -70 dB',
    unit: 'dB',
    limit: 0,
    measure: () => 70 + Math.max(loudestSide(harmonics(220, 12), 'keep'), loudestSide(harmonics(220, 12), 'follow')),
  },
  {
    effect: 'Pitch',
    promise: 'spectrum: what is beside sixty harmonics of 97 Hz, five shifts, over -70 dB',
    unit: 'dB',
    limit: 20,
    measure: () => 70 + loudestSide(harmonics(97, 60), 'follow'),
  },
];
