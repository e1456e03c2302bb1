import { amplitudeAt } from '../dsp/testing';
import { runWet } from '../effects/testing';
import type { Accuracy } from './measure';

const RATE = 48_000;
const HIGHEST_HZ = 18_000;
const LOOKED_AT_HZ = 4500;
/** What lies so far below the loudest formant is not looked at. */
const FLOOR = 0.02;
/** Middles and widths of the formants of an open vowel, in Hz. */
const FORMANTS = [
  [700, 90],
  [1220, 110],
  [2600, 160],
  [3300, 200],
] as const;

/** Gain of a throat: resonances in a row, behind a voice that falls. */
function throatAt(hz: number): number {
  const throat = FORMANTS.reduce(
    (gain, [at, width]) => (gain * at * at) / Math.hypot(at * at - hz * hz, hz * width),
    1,
  );
  return throat / (1 + Math.pow(hz / 300, 1.2));
}

/** By how much it turns a tone. */
const turnAt = (hz: number): number =>
  -FORMANTS.reduce((sum, [at, width]) => sum + Math.atan2(hz * width, at * at - hz * hz), 0);

const loudest = Math.max(...FORMANTS.map(([hz]) => throatAt(hz)));

/** Root mean square of what the tones of a shifted vowel are off the throat it was sung with, in dB. */
function vowelError(quality: string, hz: number, semitones: number): number {
  const tones = Array.from({ length: Math.floor(HIGHEST_HZ / hz) }, (_, n) => hz * (n + 1));
  const levels = tones.map((tone) => (0.12 * throatAt(tone)) / loudest);
  const turns = tones.map(turnAt);
  const input = (i: number): number =>
    tones.reduce((sum, tone, n) => sum + levels[n]! * Math.cos((2 * Math.PI * tone * i) / RATE + turns[n]!), 0);
  const { left } = runWet('pitch', { semitones, formants: 'keep', quality }, { seconds: 1.6, input });
  const shifted = hz * Math.pow(2, semitones / 12);
  const off: number[] = [];
  for (let tone = shifted; tone < LOOKED_AT_HZ; tone += shifted) {
    if (throatAt(tone) < FLOOR * loudest) continue;
    off.push(20 * Math.log10(amplitudeAt(left, tone, 0.5 * RATE, 1.5 * RATE) / throatAt(tone)));
  }
  const mean = off.reduce((sum, x) => sum + x, 0) / off.length;
  return Math.sqrt(off.reduce((sum, x) => sum + (x - mean) ** 2, 0) / off.length);
}

const CASES = [
  [98, 5],
  [110, 5],
  [127, -4],
  [155, 5],
  [110, -7],
  [140, 9],
] as const;

export const vowelPromises: readonly Accuracy[] = ['spectrum', 'grains'].flatMap((quality) =>
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
