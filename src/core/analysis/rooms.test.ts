import fc from 'fast-check';
import { between } from '../testing';
import { imageSources, type Point } from '../dsp/imageSources';
import { makeRandom } from '../dsp/random';
import { resample } from '../dsp/resample';
import { TruePeak, TRUE_PEAK_BOUND } from '../dsp/truePeak';
import { decaySeconds, octaveBand } from './decay';

const RATE = 48_000;

describe('decay by backward integration', () => {
  const noise = (seconds: number, decay: number): Float64Array => {
    const random = makeRandom(4);
    return Float64Array.from(
      { length: Math.round(seconds * RATE) },
      (_, i) => (random() - 0.5) * Math.pow(10, (-3 * i) / (decay * RATE)),
    );
  };

  test.each([0.3, 1, 2.7])('noise that falls 60 dB in %d s is measured as that, within 3 %%', (decay) => {
    expect(decaySeconds([noise(2 * decay, decay)], RATE) / decay).toBeCloseTo(1, 1);
    expect(Math.abs(decaySeconds([noise(2 * decay, decay)], RATE) / decay - 1)).toBeLessThan(0.03);
  });

  test('a sound that does not fall far enough has no decay', () =>
    expect(decaySeconds([noise(0.2, 8)], RATE, -5, -65)).toBeNaN());

  test('a band hears its own tone and next to nothing of its neighbours two octaves off', () => {
    const level = (hz: number, band: number): number => {
      const out = octaveBand(
        Float64Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE)),
        band,
        RATE,
      );
      return 10 * Math.log10(out.subarray(RATE / 2).reduce((sum, x) => sum + x * x, 0) / (RATE / 4));
    };
    expect(Math.abs(level(1000, 1000))).toBeLessThan(1.2);
    expect(level(250, 1000)).toBeLessThan(-60);
    expect(level(4000, 1000)).toBeLessThan(-60);
  });
});

describe('mirror images', () => {
  const box: Point = [5, 7, 3];
  const inside = fc.tuple(between(0.1, 4.9), between(0.1, 6.9), between(0.1, 2.9));

  test('the six first reflections are as far as a mirror at each wall puts them', () => {
    fc.assert(
      fc.property(inside, inside, (source, listener) => {
        const found = imageSources(box, source, listener, 1)
          .filter(({ bounces }) => bounces.reduce((a, b) => a + b, 0) === 1)
          .map(({ distance }) => distance);
        const mirrored = [0, 1, 2].flatMap((axis) =>
          [0, box[axis]!].map((wall) =>
            Math.hypot(...source.map((x, k) => (k === axis ? 2 * wall - x : x) - listener[k]!)),
          ),
        );
        const sorted = mirrored.sort((a, b) => a - b);
        return found.length === 6 && found.every((distance, i) => Math.abs(distance - sorted[i]!) < 1e-9);
      }),
    );
  });

  test('the way back is as long as the way there', () => {
    fc.assert(
      fc.property(inside, inside, (a, b) => {
        const [there, back] = [imageSources(box, a, b, 3), imageSources(box, b, a, 3)];
        return there.every(({ distance }, i) => Math.abs(distance - back[i]!.distance) < 1e-9);
      }),
      { numRuns: 30 },
    );
  });
});

describe('between the samples', () => {
  test('a tone at another rate is the same tone', () => {
    const tone = (rate: number): Float32Array =>
      Float32Array.from({ length: rate / 2 }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 3000 * i) / rate));
    const made = resample(tone(44_100), 44_100, RATE);
    const wanted = tone(RATE);
    for (let i = 2000; i < 20_000; i += 1) expect(Math.abs(made[i]! - wanted[i]!)).toBeLessThan(2e-4);
  });

  test('a tone at a quarter of the rate, sampled beside its tops, is found 3 dB above its samples', () => {
    const meter = new TruePeak();
    let most = 0;
    for (let i = 0; i < 400; i += 1) {
      const peak = meter.next(Math.sin((Math.PI / 2) * i + Math.PI / 4));
      // What begins at once rings for a moment.
      if (i > 100) most = Math.max(most, peak);
    }
    expect(20 * Math.log10(most)).toBeCloseTo(0, 1);
  });

  test('no sound rises above its samples by more than the bound', () => {
    fc.assert(
      fc.property(fc.array(between(-1, 1), { minLength: 1, maxLength: 60 }), (samples) => {
        const meter = new TruePeak();
        return samples.every((x) => meter.next(x) <= TRUE_PEAK_BOUND + 1e-12);
      }),
    );
  });
});
