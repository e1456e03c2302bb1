import fc from 'fast-check';
import { makeRandom } from '../../dsp/random';
import { between } from '../../testing';
import { runWet } from '../testing';

const RATE = 48_000;
const BURST = [0.2, 0.25] as const;
const SECONDS = 2.5;

/** Noise of a level, with a burst over the ceiling where one is asked for. */
function limited(
  level: number,
  ceiling: number,
  bursts: boolean,
  release: number,
): { in: Float64Array; out: Float64Array } {
  const random = makeRandom(9);
  const isBurst = (i: number): boolean => bursts && i >= BURST[0] * RATE && i < BURST[1] * RATE;
  const input = Float64Array.from(
    { length: SECONDS * RATE },
    (_, i) => (isBurst(i) ? 2 : 2 * level) * (random() - 0.5),
  );
  const values = { ceiling, release, lookAhead: 2 };
  const { left } = runWet('limiter', values, { sampleRate: RATE, seconds: SECONDS, input: (i) => input[i] ?? 0 });
  return { in: input, out: left };
}

/** Whether 4000 samples of the output, from a sample on, are the input to the bit after some delay. */
function isOnlyDelayed({ in: input, out }: { in: Float64Array; out: Float64Array }, from: number): boolean {
  for (let delay = 0; delay < 1000; delay += 1) {
    let alike = true;
    for (let i = from; alike && i < from + 4000; i += 1) alike = out[i] === input[i - delay];
    if (alike) return true;
  }
  return false;
}

test('what stays well below the ceiling is only delayed, to the bit', () => {
  fc.assert(
    fc.property(between(0.001, 0.15), between(-6, 0), (level, ceiling) =>
      isOnlyDelayed(limited(level, ceiling, false, 100), 20_000),
    ),
    { numRuns: 8 },
  );
});

test('after a burst over the ceiling the gain comes back to one, and the sound is only delayed again', () => {
  for (const release of [10, 40, 80]) {
    const through = limited(0.1, -6, true, release);
    const most = through.out.reduce((peak, x) => Math.max(peak, Math.abs(x)), 0);
    expect(most).toBeLessThanOrEqual(10 ** (-6 / 20) + 1e-6);
    expect(isOnlyDelayed(through, 2 * RATE)).toBe(true);
  }
});
