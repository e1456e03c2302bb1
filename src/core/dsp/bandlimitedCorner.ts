/** Samples that a corner is spread over: two before it, two after it. */
export const CORNER_FRAMES = 4;

/**
 * Integrals of the B-spline of third order from its beginning at -2: up to `u - 2`, then up to `u - 1`, where `u` is 0
 * to 1.
 */
const onceEarly = (u: number): number => (u * u * u * u) / 24;
const twiceEarly = (u: number): number => (u * u * u * u * u) / 120;
const threeTimesEarly = (u: number): number => (u * u * u * u * u * u) / 720;
const onceLate = (u: number): number => 0.5 + (u - 1) * (2 / 3 - (u - 1) * (u - 1) * (1 / 3 + (u - 1) / 8));
function twiceLate(u: number): number {
  const v = u - 1;
  return 7 / 30 + v * (0.5 + v * (1 / 3 - v * v * (1 / 12 + v / 40)));
}
function threeTimesLate(u: number): number {
  const v = u - 1;
  return 1 / 12 + v * (7 / 30 + v * (0.25 + v * (1 / 9 - v * v * (1 / 60 + v / 240))));
}

/**
 * Corrects the four samples round a corner of a wave, so that it has no harmonics above half the sample rate that would
 * alias. A step, a ramp and a parabola that begin at the corner are each replaced by their integral of a B-spline; of
 * the parabola a sixth of a step is subtracted, by which the spline would lower it for ever.
 * Source: F. Esqueda, V. Välimäki and S. Bilbao, "Aliasing Reduction in Clipped Signals" (2016), with the B-spline of
 * third order, and its next integral for what the curvature changes by.
 * @param at first of the four; the corner is between the second and the third
 * @param since samples from the corner to the third, 0 to 1
 * @param height, slope, curvature what the wave changes by at the corner: itself, by the sample, and by the sample
 * twice
 */
export function addCorner(
  samples: Float64Array,
  at: number,
  since: number,
  height: number,
  slope: number,
  curvature: number,
): void {
  const until = 1 - since;
  const a = onceEarly(since);
  const b = onceLate(since);
  const c = onceLate(until);
  const d = onceEarly(until);
  const sixth = curvature / 6;
  samples[at] = samples[at]! + height * a + slope * twiceEarly(since) + curvature * threeTimesEarly(since) - sixth * a;
  samples[at + 1] =
    samples[at + 1]! + height * b + slope * twiceLate(since) + curvature * threeTimesLate(since) - sixth * b;
  samples[at + 2] =
    samples[at + 2]! - height * c + slope * twiceLate(until) - curvature * threeTimesLate(until) + sixth * c;
  samples[at + 3] =
    samples[at + 3]! - height * d + slope * twiceEarly(until) - curvature * threeTimesEarly(until) + sixth * d;
}
