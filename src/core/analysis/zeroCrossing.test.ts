import * as fc from 'fast-check';
import { between } from '../testing';
import { crossingNear } from './zeroCrossing';

const RATE = 48_000;
const sine = (hz: number): Float32Array =>
  Float32Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE));

test('a cut of a tone falls where the tone goes through nothing, and never farther off than it may', () => {
  fc.assert(
    fc.property(between(300, 4000), fc.integer({ min: 200, max: RATE - 200 }), (hz, frame) => {
      const tone = sine(hz);
      const at = crossingNear([tone], frame, 96);
      expect(Math.abs(at - frame)).toBeLessThanOrEqual(96);
      // Two milliseconds either way hold a crossing of anything over 250 Hz; a sample beside it is under the slope of
      // one sample.
      expect(Math.abs(tone[at]!)).toBeLessThanOrEqual(Math.sin((2 * Math.PI * hz) / RATE) + 1e-6);
    }),
  );
});

test('of two sides it is their sum that counts; where nothing crosses it is the quietest place; at the edges it stays inside', () => {
  const left = sine(500);
  const right = left.map((x) => -x + 0.5);
  expect(crossingNear([left, right], 1000, 50)).toBeGreaterThanOrEqual(950);
  const bump = Float32Array.from({ length: 200 }, (_, i) => 0.2 + Math.abs(i - 130) / 100);
  expect(crossingNear([bump], 100, 60)).toBe(130);
  for (const frame of [0, 199]) {
    const at = crossingNear([bump], frame, 20);
    expect(at >= 0 && at < 200).toBe(true);
  }
  expect(crossingNear([], 7, 20)).toBe(7);
});
