import { clipOf, RATE, scene, soundOf } from '../piece/testing';
import { powerSpectrum } from '../analysis/spectrum';
import { makeRandom } from '../dsp/random';
import type { ParamValues } from '../params/param';
import { makeIn } from './testing';

/** Two phrases of a chord, four beats each, at 120 a minute; between them, from beat 4 to beat 36, nothing. */
const chord = (i: number): number =>
  [220, 277.2, 329.6, 415.3].reduce((sum, hz) => sum + 0.1 * Math.sin((2 * Math.PI * hz * i) / RATE), 0);
const phrases = scene([soundOf(2, chord)], [{ clips: [clipOf('a', 0, 0, 2), clipOf('b', 0, 36, 2)] }], {
  lengthBeats: 48,
});
const gap = { start: 4, end: 36 };

const bed = (values: ParamValues = {}): Float32Array =>
  makeIn(phrases, { id: 'bed', track: 0, ...gap, values: { highCut: 12_000, level: 1, ...values } }).heard(0, 48);

const level = (x: Float32Array, from: number, to: number): number =>
  10 *
  Math.log10(
    x.subarray(Math.round(from * RATE), Math.round(to * RATE)).reduce((sum, y) => sum + y * y, 1e-20) /
      ((to - from) * RATE),
  );
/** Power at a frequency over a second, in dB. */
function tone(x: Float32Array, at: number, hz: number): number {
  let re = 0;
  let im = 0;
  for (let i = 0; i < RATE; i += 1) {
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / RATE);
    re += window * x[at * RATE + i]! * Math.cos((2 * Math.PI * hz * i) / RATE);
    im += window * x[at * RATE + i]! * Math.sin((2 * Math.PI * hz * i) / RATE);
  }
  return 10 * Math.log10(re * re + im * im + 1e-20);
}

test('a bed fills the gap between two phrases: in from nothing, level all through, out before the next one', () => {
  const left = bed();
  expect(level(left, 0, 2)).toBeLessThan(-150);
  expect(level(left, 2, 2.05)).toBeLessThan(level(left, 4, 5) - 20);
  // Over single seconds the chord beats against itself; over several its level is constant.
  const middle = [3, 6, 9, 12, 15].map((from) => level(left, from, from + 3));
  expect(Math.max(...middle) - Math.min(...middle)).toBeLessThan(1);
  expect(level(left, 18.001, 20)).toBeLessThan(-150);
  let step = 0;
  for (let i = 18 * RATE - 100; i < 18 * RATE + 100; i += 1) step = Math.max(step, Math.abs(left[i]! - left[i - 1]!));
  expect(step).toBeLessThan(1e-3);
});

test('it holds the notes of the phrase before, and no pitch drifts', () => {
  const left = bed();
  for (const hz of [220, 329.6]) {
    for (const at of [4, 15]) expect(tone(left, at, hz)).toBeGreaterThan(tone(left, at, hz * 1.06) + 10);
    expect(Math.abs(tone(left, 4, hz) - tone(left, 15, hz))).toBeLessThan(8);
  }
});

test('a bed that is looped for ten minutes shows no seam in level (1 dB) or in its spectrum (2 dB), and its pitch does not drift', () => {
  const random = makeRandom(4);
  const breath = Float32Array.from({ length: 2 * RATE }, () => 0.15 * (random() - 0.5));
  const breathy = scene([soundOf(2, (i) => chord(i) + breath[i]!)], [{ clips: [clipOf('a', 0, 0, 2)] }], {
    lengthBeats: 48,
  });
  const held = makeIn(breathy, { id: 'bed', track: 0, start: 4, end: 44, values: { highCut: 12_000, level: 1 } });
  // Twelve seconds of it, again and again for 300 bars of two seconds.
  const looped = makeIn(held, { id: 'loop', track: 1, start: 8, end: 32, values: { bars: 300, level: 1 } });
  const out = looped.heard(32, 32 + 1200);
  expect(out.length).toBe(600 * RATE);
  const turn = looped.sound!.channels[0]!.length;
  const seams = [1, 20, Math.floor((600 * RATE) / turn) - 1].map((k) => k * turn);
  const elsewhere = [0.3, 0.5, 0.7].flatMap((share) => [turn * share, turn * (20 + share), turn * (40 + share)]);
  const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;
  const around = (at: number): number => level(out, at / RATE - 1.5, at / RATE + 1.5);
  for (const seam of seams) expect(Math.abs(around(seam) - mean(elsewhere.map(around)))).toBeLessThan(1);
  const SIZE = 131_072;
  const power = (at: number): Float64Array =>
    powerSpectrum(
      Float64Array.from(
        { length: SIZE },
        (_, i) => out[Math.round(at) - SIZE / 2 + i]! * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / SIZE)),
      ),
    );
  const atSeams = seams.map(power);
  const besides = elsewhere.map(power);
  for (const [low, high] of [
    [150, 500],
    [500, 1000],
    [1000, 2000],
    [2000, 4000],
    [4000, 8000],
  ] as const) {
    const band = (spectrum: Float64Array): number =>
      10 *
      Math.log10(
        spectrum
          .slice(Math.round((low * SIZE) / RATE), Math.round((high * SIZE) / RATE))
          .reduce((sum, x) => sum + x, 0),
      );
    const usual = mean(besides.map(band));
    for (const seam of atSeams) expect(Math.abs(band(seam) - usual)).toBeLessThan(2);
  }
  const peakHz = (spectrum: Float64Array): number => {
    let best = Math.round((200 * SIZE) / RATE);
    for (let k = best; k < (240 * SIZE) / RATE; k += 1) if (spectrum[k]! > spectrum[best]!) best = k;
    return (best * RATE) / SIZE;
  };
  for (const spectrum of [...atSeams, ...besides])
    expect(Math.abs(peakHz(spectrum) - peakHz(besides[0]!))).toBeLessThan(0.4);
  // From one sample to the next, nothing at a seam moves faster than the sound itself does.
  const step = (from: number, to: number): number => {
    let most = 0;
    for (let i = Math.round(from) + 1; i < to; i += 1) most = Math.max(most, Math.abs(out[i]! - out[i - 1]!));
    return most;
  };
  for (const seam of seams) expect(step(seam - 50, seam + 50)).toBeLessThan(step(seam + RATE, seam + 3 * RATE));
});

test('one that still takes in stacks up what the track plays on', () => {
  // Quiet, so that what is held does not yet give way to what comes; noise, as a few tones may as well cancel one
  // another.
  const random = makeRandom(8);
  const twice = scene(
    [soundOf(2, () => 0.1 * (random() - 0.5))],
    [{ clips: [clipOf('a', 0, 0, 2), clipOf('b', 0, 20, 2)] }],
    { lengthBeats: 48 },
  );
  const open = (freeze: string): Float32Array =>
    makeIn(twice, { id: 'bed', track: 0, ...gap, values: { freeze, level: 1 } }).heard(0, 48);
  const [stacked, sealed] = [open('open'), open('sealed')];
  expect(level(stacked, 14, 17) - level(stacked, 5, 8)).toBeGreaterThan(
    level(sealed, 14, 17) - level(sealed, 5, 8) + 2,
  );
});

test('where nothing sounded there is nothing to freeze', () => {
  const late = { id: 'bed', track: 0, start: 20, end: 28 };
  expect(() => makeIn(phrases, late)).toThrow();
  // A clip that holds nothing but silence: told once it has been rendered.
  const silent = scene([soundOf(2, () => 0)], [{ clips: [clipOf('a', 0, 0, 2)] }], { lengthBeats: 48 });
  expect(() => makeIn(silent, { id: 'bed', track: 0, ...gap })).toThrow('nothing to freeze');
});
