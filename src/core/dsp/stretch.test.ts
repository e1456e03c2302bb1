import { amplitudeAt } from './testing';
import { findOnsets } from '../analysis/onsets';
import { stretched, type StretchSettings } from './stretch';

const RATE = 48_000;
const PLAIN: StretchSettings = { times: 1, semitones: 0, keepPitch: true, formants: 'keep', formantSemitones: 0 };
const tone = (hz: number, seconds: number): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, i) =>
    [1, 2, 3].reduce((sum, n) => sum + (0.25 / n) * Math.sin((2 * Math.PI * hz * n * i) / RATE), 0),
  );
const PLACES = Array.from({ length: 12 }, (_, k) => Math.round((0.1 + 0.24 * k) * RATE));

/** Knocks of ten milliseconds at known places. */
function knocks(): Float32Array {
  const out = new Float32Array(3.2 * RATE);
  for (const at of PLACES)
    for (let i = 0; i < 480; i += 1) out[at + i] = 0.8 * Math.exp(-i / 60) * Math.sin(0.9 * i + 0.5);
  return out;
}

const loudest = (samples: Float32Array, from: number, to: number): number => {
  let best = Math.max(0, from);
  for (let i = best; i < Math.min(to, samples.length); i += 1)
    if (Math.abs(samples[i]!) > Math.abs(samples[best]!)) best = i;
  return best;
};

test.each([0.5, 0.8, 1.25, 2, 3])(
  'at %f times the length every knock is in its place within 2 ms, and single',
  (times) => {
    const from = knocks();
    const [out] = stretched([from], RATE, { ...PLAIN, times });
    expect(out!.length).toBe(Math.round(from.length * times));
    for (const at of PLACES) {
      const wanted = at * times + loudest(from, at, at + 400) - at;
      expect(Math.abs(loudest(out!, wanted - 2000, wanted + 2000) - wanted)).toBeLessThan(0.002 * RATE);
    }
    expect(findOnsets(out!, RATE).length).toBe(PLACES.length);
  },
);

test.each([
  [7, 1],
  [-5, 1],
  [12, 1.5],
  [-12, 0.7],
  [0, 2.5],
])('%i semitones and %f times the length: pitch within 3 cents, length to the sample', (semitones, times) => {
  const from = tone(220, 3);
  const [left, right] = stretched([from, from], RATE, { ...PLAIN, semitones, times });
  expect(left!.length).toBe(Math.round(from.length * times));
  const wanted = 220 * Math.pow(2, semitones / 12);
  const at = (cents: number): number =>
    amplitudeAt(Float64Array.from(left!), wanted * Math.pow(2, cents / 1200), RATE / 2, RATE / 2 + RATE);
  const best = Array.from({ length: 41 }, (_, i) => i - 20).reduce(
    (most, cents) => (at(cents) > at(most) ? cents : most),
    0,
  );
  expect(Math.abs(best)).toBeLessThanOrEqual(3);
  // Both sides go through one transform in single precision.
  expect(left!.every((x, i) => Math.abs(x - right![i]!) < 1e-6)).toBe(true);
});

test('formants stay within 3 % when they are kept, and go along when they are not', () => {
  const hill = (hz: number): number => Math.exp(-0.5 * ((hz - 1150) / 260) ** 2);
  const voice = Float32Array.from({ length: 2 * RATE }, (_, i) =>
    Array.from(
      { length: 30 },
      (_n, n) => 0.2 * (0.003 + hill(110 * (n + 1))) * Math.sin((2 * Math.PI * 110 * (n + 1) * i) / RATE + n * n),
    ).reduce((sum, x) => sum + x, 0),
  );
  const hillOf = (formants: StretchSettings['formants']): number => {
    const out = Float64Array.from(stretched([voice], RATE, { ...PLAIN, semitones: 5, formants })[0]!);
    const step = 110 * Math.pow(2, 5 / 12);
    const levels = Array.from({ length: 22 }, (_, n) =>
      Math.log(amplitudeAt(out, step * (n + 1), RATE / 2, RATE + RATE / 2) + 1e-9),
    );
    const top = levels.indexOf(Math.max(...levels));
    const [a, b, c] = [levels[top - 1]!, levels[top]!, levels[top + 1]!];
    return step * (top + 1 + (0.5 * (a - c)) / (a - 2 * b + c));
  };
  expect(Math.abs(hillOf('keep') / 1150 - 1)).toBeLessThan(0.03);
  expect(Math.abs(hillOf('follow') / (1150 * Math.pow(2, 5 / 12)) - 1)).toBeLessThan(0.03);
});

test('as tape: half the length is an octave up; with nothing to do nothing is changed', () => {
  const from = tone(220, 2);
  const [fast] = stretched([from], RATE, { ...PLAIN, times: 0.5, keepPitch: false });
  expect(amplitudeAt(Float64Array.from(fast!), 440, 4800, 43_200)).toBeCloseTo(0.25, 2);
  expect(stretched([from], RATE, PLAIN)[0]).toEqual(from);
});
