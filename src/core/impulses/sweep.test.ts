import fc from 'fast-check';
import { between } from '../testing';
import { octaveBand } from '../analysis/decay';
import { fastConvolve, fastDeconvolve } from '../dsp/fastConvolve';
import { fromRecording } from './recording';
import { roomImpulse } from './room';
import { handClap, STAND_IN_ROOM, standInHears } from './standIn';
import { exponentialSweep, placeOfSweep } from './sweep';

const RATE = 48_000;
const power = (samples: ArrayLike<number>): number => Array.from(samples).reduce((sum, x) => sum + x * x, 0);

test('one long transform convolves as the sum of products does, and goes back', () => {
  const few = fc.array(between(-1, 1), { minLength: 1, maxLength: 24 });
  fc.assert(
    fc.property(few, few, (a, b) => {
      const out = fastConvolve(a, b);
      for (let n = 0; n < out.length; n += 1)
        expect(out[n]).toBeCloseTo(
          a.reduce((sum, x, k) => sum + x * (b[n - k] ?? 0), 0),
          9,
        );
    }),
  );
  const struck = [1, 0.5, -0.3];
  const through = fastConvolve(struck, [0, 0, 0.7, 0.2]);
  fastDeconvolve(through, struck, 1e-14)
    .slice(0, 4)
    .forEach((x, i) => expect(x).toBeCloseTo([0, 0, 0.7, 0.2][i]!, 6));
});

test('the sweep climbs by the same ratio in every second, from 20 Hz up', () => {
  const sweep = exponentialSweep(4, RATE);
  const crossings = (from: number, to: number): number =>
    sweep.slice(from, to).reduce((count, x, i, part) => count + (i > 0 && x >= 0 !== part[i - 1]! >= 0 ? 1 : 0), 0) / 2;
  const ratios = [1, 2, 3].map(
    (second) => crossings(second * RATE, (second + 0.5) * RATE) / crossings((second - 1) * RATE, (second - 0.5) * RATE),
  );
  for (const ratio of ratios.slice(1)) expect(ratio / ((0.46 * RATE) / 20) ** 0.25).toBeCloseTo(1, 1);
});

test('a swept room is recovered within 1 dB in every octave, in its place and with its shape', () => {
  const sweep = exponentialSweep(3, RATE);
  const padded = new Float32Array(5 * RATE);
  padded.set(sweep);
  const [heard] = standInHears(padded, RATE);
  const found = fromRecording({ left: placeOfSweep(heard, padded), right: placeOfSweep(heard, padded) }, RATE).left;
  const known = roomImpulse(STAND_IN_ROOM, RATE).left;
  const scale = Math.sqrt(power(octaveBand(known, 1000, RATE)) / power(octaveBand(found, 1000, RATE)));
  for (const hz of [125, 250, 500, 1000, 2000, 4000, 8000]) {
    const error =
      10 * Math.log10((scale * scale * power(octaveBand(found, hz, RATE))) / power(octaveBand(known, hz, RATE)));
    expect(Math.abs(error)).toBeLessThan(1);
  }
  const peak = (samples: Float32Array): number =>
    samples.reduce((best, x, i) => (Math.abs(x) > Math.abs(samples[best]!) ? i : best), 0);
  const [at, was] = [peak(found), peak(known)];
  const n = 4000;
  const dot = Array.from({ length: n }, (_, i) => found[at + i]! * known[was + i]!).reduce((sum, x) => sum + x, 0);
  // The sweep ends at 0.46 of the rate: the twelfth of the band above it is not in it.
  expect(dot / Math.sqrt(power(found.slice(at, at + n)) * power(known.slice(was, was + n)))).toBeGreaterThan(0.96);
});

test('a clap in the stand-in room begins at its clap and ends in the noise', () => {
  const [left, right] = standInHears(handClap(4, RATE), RATE);
  const found = fromRecording({ left, right }, RATE).left;
  const loudest = found.reduce((best, x, i) => (Math.abs(x) > Math.abs(found[best]!) ? i : best), 0);
  expect(loudest).toBeLessThan(0.02 * RATE);
  expect(found.length).toBeLessThan(3 * RATE);
  expect(found.length).toBeGreaterThan(0.3 * RATE);
});
