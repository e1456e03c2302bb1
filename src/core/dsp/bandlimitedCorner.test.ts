import { addCorner, CORNER_FRAMES } from './bandlimitedCorner';

/** Integral of the B-spline of third order from far below up to `u`, so many times over, by small steps. */
function integrated(u: number, times: number): number {
  const [steps, low] = [20_000, -2];
  const width = (u - low) / steps;
  let sums = new Float64Array(steps + 1);
  for (let i = 0; i <= steps; i += 1) sums[i] = spline(low + i * width);
  for (let n = 0; n < times; n += 1) {
    const next = new Float64Array(steps + 1);
    for (let i = 1; i <= steps; i += 1) next[i] = next[i - 1]! + (width * (sums[i]! + sums[i - 1]!)) / 2;
    sums = next;
  }
  return sums[steps]!;
}

function spline(x: number): number {
  const u = Math.abs(x);
  if (u >= 2) return 0;
  return u >= 1 ? (2 - u) ** 3 / 6 : 2 / 3 - u * u + u ** 3 / 2;
}

const added = (since: number, height: number, slope: number, curvature: number): number[] => {
  const samples = new Float64Array(CORNER_FRAMES + 1);
  addCorner(samples, 1, since, height, slope, curvature);
  expect(samples[0]).toBe(0);
  return [...samples.subarray(1)];
};

test.each([0, 0.2, 0.5, 0.83, 1])(
  '%d samples behind a corner, steps, ramps and parabolas become those of the spline',
  (since) => {
    const places = [since - 2, since - 1, since, since + 1];
    const step = (u: number): number => (u >= 0 ? 1 : 0);
    const [steps, ramps, parabolas] = [added(since, 1, 0, 0), added(since, 0, 1, 0), added(since, 0, 0, 1)];
    places.forEach((u, k) => {
      // Right at the corner a step is up already where it is the third sample, and not yet where it is the second.
      const up = k >= 2 ? 1 : 0;
      expect(steps[k]! + up).toBeCloseTo(integrated(u, 1), 6);
      expect(ramps[k]! + step(u) * u).toBeCloseTo(integrated(u, 2), 6);
      expect(parabolas[k]! + step(u) * 0.5 * u * u).toBeCloseTo(integrated(u, 3) - integrated(u, 1) / 6, 6);
    });
  },
);
