import { amplitudeAt } from '../dsp/testing';
import { presetValues, runWet } from '../effects/testing';
import type { Accuracy } from './measure';

const RATE = 48_000;
const HIGHEST_HZ = 18_000;
const LOOKED_AT_HZ = 4500;
/** Harmonics this far below the loudest formant are ignored. */
const FLOOR = 0.02;
/** Middles and widths of the formants of an open vowel, in Hz. */
const FORMANTS = [
  [700, 90],
  [1220, 110],
  [2600, 160],
  [3300, 200],
] as const;

/** Gain of a vocal tract: formant resonances in a row, after a source whose harmonics fall. */
function vocalTractGain(hz: number): number {
  const resonances = FORMANTS.reduce(
    (gain, [at, width]) => (gain * at * at) / Math.hypot(at * at - hz * hz, hz * width),
    1,
  );
  return resonances / (1 + Math.pow(hz / 300, 1.2));
}

/** Phase shift of a tone. */
const turnAt = (hz: number): number =>
  -FORMANTS.reduce((sum, [at, width]) => sum + Math.atan2(hz * width, at * at - hz * hz), 0);

const loudest = Math.max(...FORMANTS.map(([hz]) => vocalTractGain(hz)));

/** Samples of a vowel that is sung at a pitch. */
function vowel(hz: number): (index: number) => number {
  const tones = Array.from({ length: Math.floor(HIGHEST_HZ / hz) }, (_, n) => hz * (n + 1));
  const levels = tones.map((tone) => (0.12 * vocalTractGain(tone)) / loudest);
  const turns = tones.map(turnAt);
  return (i) =>
    tones.reduce((sum, tone, n) => sum + levels[n]! * Math.cos((2 * Math.PI * tone * i) / RATE + turns[n]!), 0);
}

/**
 * RMS deviation of a vowel's harmonics from its vocal tract, in dB.
 * @param hz pitch at which it is heard  @param formantRatio by which its formants are shifted
 */
function formantErrorDb(out: Float64Array, hz: number, formantRatio: number, from: number, to: number): number {
  const off: number[] = [];
  for (let tone = hz; tone < LOOKED_AT_HZ; tone += hz) {
    const wanted = vocalTractGain(tone / formantRatio);
    if (wanted < FLOOR * loudest) continue;
    off.push(20 * Math.log10(amplitudeAt(out, tone, from * RATE, to * RATE) / wanted));
  }
  const mean = off.reduce((sum, x) => sum + x, 0) / off.length;
  return Math.sqrt(off.reduce((sum, x) => sum + (x - mean) ** 2, 0) / off.length);
}

/** The same of a shifted vowel that keeps its formants. */
function vowelError(quality: string, hz: number, semitones: number): number {
  const { left } = runWet('pitch', { semitones, formants: 'keep', quality }, { seconds: 1.6, input: vowel(hz) });
  return formantErrorDb(left, hz * Math.pow(2, semitones / 12), 1, 0.5, 1.5);
}

/** The same of a vowel in slow motion, its formants shifted independently of its pitch. */
function slowVowelError(hz: number, speed: number, pitch: number, formants: number): number {
  const values = {
    ...presetValues('slowMotion'),
    held: true,
    speed,
    pitch,
    formants,
    startsOn: 'free',
    catchEvery: 16_000,
  };
  const { left } = runWet('slowMotion', values, {
    seconds: 2.4,
    input: vowel(hz),
    move: (step) => ({ held: step > 400 }),
  });
  return formantErrorDb(left, hz * Math.pow(2, pitch / 12), Math.pow(2, (pitch + formants) / 12), 1, 2.3);
}

const CASES = [
  [98, 5],
  [110, 5],
  [127, -4],
  [155, 5],
  [110, -7],
  [140, 9],
] as const;

/** Pitch in Hz, speed, semitones of the pitch and of the formants: kept where the two cancel. */
const SLOW_CASES = [
  [110, 0.5, 5, -5],
  [98, 0.25, -4, 4],
  [155, 0.7, 0, 4],
  [140, 0, 0, -3],
  [127, 1.6, 7, -7],
] as const;

const slowVowels: readonly Accuracy[] = SLOW_CASES.map(([hz, speed, pitch, formants]) => ({
  effect: 'Slow motion',
  promise: `a vowel of ${hz} Hz at ${100 * speed} % of its speed, pitch ${pitch} and formants ${formants} semitones (rms over its tones)`,
  unit: 'dB',
  limit: 2,
  measure: () => slowVowelError(hz, speed, pitch, formants),
}));

const shiftedVowels: readonly Accuracy[] = ['spectrum', 'grains'].flatMap((quality) =>
  CASES.map(([hz, semitones]) => ({
    effect: 'Pitch',
    promise: `${quality}: a vowel of ${hz} Hz keeps its formants at ${semitones} semitones (rms over its tones)`,
    unit: 'dB',
    // Between its tones nothing tells how high a formant is: a spectrum drawn through them is nearer than two periods
    // of it.
    limit: quality === 'grains' && hz === 127 ? 2.2 : 1.5,
    measure: () => vowelError(quality, hz, semitones),
  })),
);

export const vowelPromises: readonly Accuracy[] = [...shiftedVowels, ...slowVowels];
