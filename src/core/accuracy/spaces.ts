import { decaySeconds, octaveBand } from '../analysis/decay';
import { powerSpectrum } from '../analysis/spectrum';
import { makeRandom } from '../dsp/random';
import { runWet, impulse } from '../effects/testing';
import { SPACES } from '../effects/reverb/params';
import { toneHz } from './repeats';
import { worst, type Accuracy } from './measure';

const DECAYS = [0.3, 1, 2.7, 8, 20];

/**
 * The decay of a band measures some percent high or low at random when it is this fast: the mean of three readings is
 * taken.
 */
const SHORT_DECAY_SECONDS = 0.5;

function decayError(space: string, sampleRate: number): number {
  return worst(
    DECAYS.map((seconds) => {
      const impulses = seconds <= SHORT_DECAY_SECONDS ? IMPULSES_AT : [0];
      const [measured] = octaveDecays(space, { decay: 1000 * seconds }, [1000], sampleRate, impulses);
      return 100 * (measured! / seconds - 1);
    }),
  );
}

/**
 * Share of samples beyond one standard deviation over that of noise (J. S. Abel and P. Huang, "A simple, robust measure
 * of reverberation echo density", 2006).
 */
export function echoDensity(samples: Float64Array, at: number, half: number): number {
  const weight = (k: number): number => 0.5 + 0.5 * Math.cos((Math.PI * k) / half);
  let power = 0;
  let total = 0;
  for (let k = -half; k <= half; k += 1) {
    power += weight(k) * samples[at + k]! * samples[at + k]!;
    total += weight(k);
  }
  const deviation = Math.sqrt(power / total);
  let beyond = 0;
  for (let k = -half; k <= half; k += 1) if (Math.abs(samples[at + k]!) > deviation) beyond += weight(k);
  return beyond / total / 0.3173;
}

/** Time in ms from which a tail is as dense as noise, over windows of 20 ms. */
function denseAfter(space: string, sampleRate: number): number {
  const { left, right } = runWet('reverb', { space, decay: 2000 }, { sampleRate, seconds: 0.3, input: impulse });
  const half = Math.round(0.01 * sampleRate);
  const first = (side: Float64Array): number => {
    let ms = 20;
    while (ms < 250 && echoDensity(side, Math.round((ms * sampleRate) / 1000), half) < 0.95) ms += 2.5;
    return ms;
  };
  return Math.max(first(left), first(right));
}

const PEAK_FRAMES = 65_536;
const PEAKS_FROM_HZ = 100;
const PEAKS_TO_HZ = 16_000;

/** Level of the highest peak of a spectrum over the mean of its third octave, in dB. */
function highestPeak(samples: Float64Array, sampleRate: number): number {
  const power = powerSpectrum(samples.map((x, i) => x * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / PEAK_FRAMES))));
  const sums = new Float64Array(power.length + 1);
  power.forEach((value, k) => (sums[k + 1] = sums[k]! + value));
  const bin = sampleRate / PEAK_FRAMES;
  let most = -Infinity;
  for (let k = Math.round(PEAKS_FROM_HZ / bin); k < PEAKS_TO_HZ / bin; k += 1) {
    const [from, to] = [Math.floor(k * Math.pow(2, -1 / 6)), Math.ceil(k * Math.pow(2, 1 / 6))];
    const mean = (sums[to + 1]! - sums[from]!) / (to + 1 - from);
    most = Math.max(most, 10 * Math.log10(power[k]! / mean));
  }
  return most;
}

/** Highest peaks of late tails of several decays: left, right and their sum, which is what is heard in mono. */
function latePeaks(space: string): readonly number[] {
  const known = peaksOf.get(space) ?? readPeaks(space);
  peaksOf.set(space, known);
  return known;
}

/** Two promises are about the same readings. */
const peaksOf = new Map<string, readonly number[]>();

function readPeaks(space: string): number[] {
  return [0.8, 2, 5, 8].flatMap((seconds) => {
    const at = Math.round(0.6 * seconds * 48_000);
    const tail = { seconds: 0.6 * seconds + PEAK_FRAMES / 48_000 + 0.1, input: impulse };
    const { left, right } = runWet('reverb', { space, decay: 1000 * seconds }, tail);
    return [left, right, left.map((x, i) => x + right[i]!)].map((each) =>
      highestPeak(each.slice(at, at + PEAK_FRAMES), 48_000),
    );
  });
}

const LOW_AND_HIGH = [
  [0.25, 0.15],
  [0.25, 1],
  [0.5, 0.3],
  [1, 0.15],
  [1.6, 0.45],
  [2.5, 0.15],
  [2.5, 1],
] as const;

/** The longest allpass section of a cloud's entrance rings for about 0.7 s on its own. */
const canHold = (space: string, seconds: number): boolean => space !== 'cloud' || seconds > 0.8;

/** Deviation of the decays at 125 Hz and 8 kHz from their settings, in percent. */
function lowAndHighError(space: string, sampleRate: number): number {
  return worst(
    LOW_AND_HIGH.flatMap(([lowDecay, highDecay]) => {
      const measured = octaveDecays(space, { decay: 3000, lowDecay, highDecay }, [125, 8000], sampleRate);
      return [3 * lowDecay, 3 * highDecay].map((seconds, i) =>
        canHold(space, seconds) ? 100 * (measured[i]! / seconds - 1) : 0,
      );
    }),
  );
}

/**
 * Samples between impulses: a band of noise that falls within a second reads some percent high or low at random, as it
 * does in rooms.
 */
const IMPULSES_AT = [0, 7001, 15_013];

/** Decays in seconds of octaves (ISO 3382), each the mean over impulses at different samples. */
function octaveDecays(
  space: string,
  values: { decay: number; lowDecay?: number; highDecay?: number },
  octaves: readonly number[],
  sampleRate: number,
  impulses: readonly number[] = IMPULSES_AT,
): number[] {
  const seconds = (values.decay / 1000) * Math.max(1, values.lowDecay ?? 1) * 1.1 + 0.8;
  const sums = octaves.map(() => 0);
  for (const first of impulses) {
    const { left, right } = runWet(
      'reverb',
      { space, ...values },
      { seconds, input: (i) => impulse(i - first), sampleRate },
    );
    octaves.forEach(
      (hz, i) =>
        (sums[i]! +=
          decaySeconds([octaveBand(left, hz, sampleRate), octaveBand(right, hz, sampleRate)], sampleRate) /
          impulses.length),
    );
  }
  return sums;
}

const OCTAVES = [63, 125, 250, 500, 1000, 2000, 4000, 8000, 16_000];
/** Decay in each octave over that at 1 kHz, with the lows set to 1.4 and the highs to 0.4. */
const CONTOURS: Readonly<Record<(typeof SPACES)[number], readonly number[]>> = {
  room: [1.41, 1.4, 1.29, 1.08, 1, 0.8, 0.47, 0.4, 0.4],
  chamber: [1.42, 1.38, 1.33, 1.14, 1, 0.84, 0.55, 0.4, 0.37],
  hall: [1.43, 1.39, 1.29, 1.08, 1, 0.94, 0.73, 0.4, 0.35],
  plate: [1.41, 1.37, 1.25, 1.06, 1, 0.86, 0.58, 0.39, 0.36],
  spring: [1.44, 1.42, 1.27, 1.04, 1, 0.94, 0.73, 0.41, 0.36],
  cloud: [1.42, 1.39, 1.25, 1.05, 1, 0.87, 0.61, 0.4, 0.36],
};

function contourError(space: (typeof SPACES)[number], sampleRate: number): number {
  const seconds = octaveDecays(space, { decay: 3000, lowDecay: 1.4, highDecay: 0.4 }, OCTAVES, sampleRate);
  return worst(seconds.map((each, i) => 100 * (each / 3 / CONTOURS[space][i]! - 1)));
}

const rms = (samples: Float64Array, from: number, to: number): number =>
  10 * Math.log10(samples.subarray(from, to).reduce((sum, x) => sum + x * x, 1e-20) / (to - from));

function sealedDrift(space: string): number {
  const random = makeRandom(11);
  const noise = Float32Array.from({ length: 48_000 }, () => random() - 0.5);
  const out = runWet(
    'reverb',
    { space, decay: 4000, modDepth: 0.5 },
    { seconds: 62, input: (i) => noise[i] ?? 0, move: (step) => (step === 700 ? { freeze: 'sealed' } : null) },
  );
  const both = (from: number): number =>
    0.5 * (rms(out.left, from * 48_000, (from + 2) * 48_000) + rms(out.right, from * 48_000, (from + 2) * 48_000));
  return worst([20, 40, 59].map((second) => both(second) - both(2)));
}

/** Change of level of an open freeze in the 57 seconds after the last input, in dB. */
function openDrift(space: string): number {
  const random = makeRandom(12);
  const noise = Float32Array.from({ length: 96_000 }, () => 1.6 * (random() - 0.5));
  const { left, right } = runWet(
    'reverb',
    { space, decay: 4000, modDepth: 0.5, freeze: 'open' },
    { seconds: 62, input: (i) => noise[i] ?? 0 },
  );
  const both = (from: number): number =>
    0.5 * (rms(left, from * 48_000, (from + 2) * 48_000) + rms(right, from * 48_000, (from + 2) * 48_000));
  return worst([20, 40, 59].map((second) => both(second) - both(3)));
}

/** The space on which the tests run slow measurements; `npm run accuracy` runs them on all. */
const TESTED = 'hall';

export const spacePromises: readonly Accuracy[] = [
  ...SPACES.flatMap((space) =>
    [44_100, 48_000, 96_000].map((rate): Accuracy => ({
      effect: `Reverb, ${space}`,
      promise: `decay at 1 kHz for 0.3, 1, 2.7, 8 and 20 s, at ${rate / 1000} kHz (ISO 3382)`,
      unit: '%',
      limit: 5,
      measure: () => decayError(space, rate),
      slow: rate === 96_000 && space !== TESTED,
    })),
  ),
  ...(['hall', 'plate'] as const).flatMap((space) =>
    [44_100, 48_000].map((rate): Accuracy => ({
      effect: `Reverb, ${space}`,
      promise: `as dense as noise (0.95 by Abel and Huang) within 80 ms, at ${rate / 1000} kHz`,
      unit: 'ms',
      limit: 80.1,
      measure: () => denseAfter(space, rate),
    })),
  ),
  ...SPACES.flatMap((space): Accuracy[] => [
    {
      effect: `Reverb, ${space}`,
      promise:
        'highest peak of a late tail over its third octave, mean of twelve readings from 0.8 to 8 s (noise: 10.1)',
      unit: 'dB',
      limit: 11.25,
      measure: () => latePeaks(space).reduce((sum, peak) => sum + peak / 12, 0),
    },
    {
      effect: `Reverb, ${space}`,
      promise: 'the same, highest of the readings (noise: 12.3 among 72)',
      unit: 'dB',
      limit: 12.3,
      measure: () => Math.max(...latePeaks(space)),
    },
    {
      effect: `Reverb, ${space}`,
      promise: 'low and high decay hold at 125 Hz and 8 kHz, seven pairs of them (three readings each)',
      unit: '%',
      limit: 7,
      measure: () => lowAndHighError(space, 48_000),
      slow: space !== TESTED,
    },
    {
      effect: `Reverb, ${space}`,
      promise: 'decay contour as stated for nine octaves, at 44.1 and 96 kHz',
      unit: '%',
      limit: 8,
      measure: () => Math.max(contourError(space, 44_100), contourError(space, 96_000)),
      slow: space !== TESTED,
    },
  ]),
  ...SPACES.map((space): Accuracy => ({
    effect: `Reverb, ${space}`,
    promise: 'sealed freeze holds its level over a minute',
    unit: 'dB',
    limit: 1,
    measure: () => sealedDrift(space),
    slow: space !== TESTED,
  })),
  {
    effect: 'Reverb',
    promise: 'sealed freeze stays in tune over half a minute',
    unit: 'cents',
    limit: 6,
    measure: () => {
      const out = runWet(
        'reverb',
        { space: 'hall', decay: 4000, modDepth: 0.5 },
        {
          seconds: 32,
          input: (i) => (i < 96_000 ? 0.3 * Math.sin((2 * Math.PI * 440 * i) / 48_000) : 0),
          move: (step) => (step === 1400 ? { freeze: 'sealed' } : null),
        },
      );
      return worst([1200 * Math.log2(toneHz(out.left, 440, 28 * 48_000, 31 * 48_000) / 440)]);
    },
  },
  {
    effect: 'Reverb',
    promise: 'open freeze does not sink in 57 s after the last sound',
    unit: 'dB',
    limit: 0.3,
    measure: () => worst([openDrift('hall'), openDrift('plate')]),
  },
  {
    effect: 'Reverb',
    promise: 'open freeze takes sound in for half a minute and stays under full scale (peak)',
    unit: 'of full scale',
    limit: 1,
    measure: () =>
      worst([
        ...runWet(
          'reverb',
          { space: 'hall', decay: 8000, freeze: 'open' },
          { seconds: 30, input: (i) => 0.5 * Math.sin(i * 0.05) + 0.4 * Math.sin(i * 0.0713) },
        ).left.filter((_, i) => i > 48_000),
      ]),
  },
  {
    effect: 'Reverb',
    promise: 'leaving freeze decays as set (2 s)',
    unit: '%',
    limit: 5,
    measure: () => {
      const random = makeRandom(5);
      const noise = Float32Array.from({ length: 24_000 }, () => random() - 0.5);
      const out = runWet(
        'reverb',
        { decay: 2000 },
        {
          seconds: 9,
          input: (i) => noise[i] ?? 0,
          move: (step) => (step === 300 ? { freeze: 'sealed' } : step === 3750 ? { freeze: 'off' } : null),
        },
      );
      const [left, right] = [out.left.slice(5.1 * 48_000), out.right.slice(5.1 * 48_000)];
      return worst([
        100 * (decaySeconds([octaveBand(left, 1000, 48_000), octaveBand(right, 1000, 48_000)], 48_000) / 2 - 1),
      ]);
    },
  },
];
