import fc from 'fast-check';
import { makeRandom } from '../../dsp/random';
import { SincRings } from '../../dsp/sincRings';
import { between } from '../../testing';
import { PeriodDetector } from './periodDetector';

const FRAMES = 16_000;

function found(sampleRate: number, wave: (i: number) => number): number {
  const rings = new SincRings(16_384);
  const samples = Float64Array.from({ length: FRAMES }, (_, i) => wave(i));
  rings.write(0, samples, samples, FRAMES);
  return new PeriodDetector(sampleRate).detect(rings, FRAMES - 100);
}

test('the period of any voice from 62 to 500 Hz is found within a cent, whatever its overtones', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(44_100, 48_000, 96_000),
      between(62, 500),
      fc.array(between(0.05, 1), { minLength: 4, maxLength: 8 }),
      (sampleRate, hz, tones) => {
        const wave = (i: number): number =>
          tones.reduce(
            (sum, level, n) => sum + (level / (n + 1)) * Math.sin((2 * Math.PI * hz * (n + 1) * i) / sampleRate + n),
            0,
          ) +
          0.5 * Math.sin((2 * Math.PI * hz * i) / sampleRate);
        expect(Math.abs(1200 * Math.log2(sampleRate / found(sampleRate, wave) / hz))).toBeLessThan(1);
      },
    ),
    { numRuns: 60 },
  );
});

test('noise and silence have none', () => {
  const random = makeRandom(6);
  expect(found(48_000, () => random() - 0.5)).toBe(0);
  expect(found(48_000, () => 0)).toBe(0);
});
