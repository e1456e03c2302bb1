import { sphereFilters, sphereGain } from './sphere';

const FREQUENCIES = [150, 700, 1500, 3000, 5000, 8000, 10_000, 15_000];
/** Levels in dB by incidence, worked out from the same series with SciPy 1.17's Bessel and Legendre functions. */
const KNOWN: readonly (readonly [number, readonly number[]])[] = [
  [0, [0.076, 3.345, 4.672, 5.395, 5.731, 5.92, 5.952, 5.983]],
  [15, [0.065, 3.27, 4.617, 5.37, 5.727, 5.878, 5.927, 5.976]],
  [45, [-0.008, 2.605, 3.983, 4.838, 5.313, 5.584, 5.685, 5.82]],
  [75, [-0.086, 1.033, 2.32, 3.385, 3.795, 4.12, 4.265, 4.527]],
  [90, [-0.102, -0.046, 1.517, 1.887, 2.362, 2.453, 2.551, 2.636]],
  [105, [-0.097, -0.989, 0.594, 0.65, 0.215, 0.054, 0.026, -0.342]],
  [135, [-0.037, -0.894, -3.863, -2.58, -3.747, -5.446, -6.021, -7.72]],
  [150, [-0.0, -0.153, -2.688, -5.965, -5.818, -7.068, -10.359, -10.619]],
  [165, [0.026, 0.439, 0.11, -3.153, -11.727, -7.218, -8.969, -11.892]],
  [180, [0.036, 0.655, 1.137, 1.195, 0.746, -0.159, -0.782, -2.277]],
];
const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const db = (gain: number): number => 20 * Math.log10(Math.abs(gain));

test.each(KNOWN)('a sphere at %d degrees', (degrees, levels) => {
  const found = FREQUENCIES.map((hz) => db(sphereGain(radians(degrees), hz)));
  found.forEach((level, i) => expect(level).toBeCloseTo(levels[i]!, 2));
});

test('far below its size a head is no obstacle', () => {
  for (const degrees of [0, 77, 180]) expect(db(sphereGain(radians(degrees), 5))).toBeCloseTo(0, 2);
});

test.each([22_050, 44_100, 48_000, 96_000, 192_000])(
  'its filters are within 1 dB up to 10 kHz at every 15 degrees, at %d Hz',
  (rate) => {
    const filters = sphereFilters(rate);
    const taps = new Float64Array(filters.half + 1);
    for (let degrees = 0; degrees <= 180; degrees += 15) {
      filters.at(radians(degrees), taps);
      for (let hz = 60; hz <= Math.min(10_000, 0.45 * rate); hz *= 1.1) {
        const gain = taps.reduce(
          (sum, tap, n) => sum + (n === 0 ? tap : 2 * tap * Math.cos((2 * Math.PI * hz * n) / rate)),
          0,
        );
        expect(Math.abs(db(gain / sphereGain(radians(degrees), hz)))).toBeLessThan(1);
      }
    }
  },
);
