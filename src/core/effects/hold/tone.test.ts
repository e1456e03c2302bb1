import fc from 'fast-check';
import { STEP_FRAMES } from '../../dsp/blocks';
import { between, roughness } from '../../testing';
import { runWet } from '../testing';

const RATE = 48_000;
const SECONDS = 0.8;
const HELD_FROM = 200;
/** A step of -60 dB is twenty times that in a sixth difference. */
const CLICK = 0.02;
/** Steps over which a cut glides, along a raised cosine that makes no click itself. */
const GLIDE = 60;
const OPEN = { lowCut: 20, highCut: 20_000 } as const;

/** A sine of 220 Hz, of which 100 ms are repeated, while a cut goes to a frequency from a step on and then is opened. */
function stuttered(param: keyof typeof OPEN, hz: number, from: number, to: number): Float32Array {
  const gone = (steps: number): number => 0.5 - 0.5 * Math.cos(Math.PI * Math.min(1, Math.max(0, steps / GLIDE)));
  const move = (step: number): Record<string, number | boolean> => ({
    held: step >= HELD_FROM,
    [param]: OPEN[param] * Math.pow(hz / OPEN[param], gone(step - from) - gone(step - to)),
  });
  const named = { heard: 'alone', slice: 100, startsOn: 'free', endsOn: 'free' };
  const input = (i: number): number => 0.5 * Math.sin((2 * Math.PI * 220 * i) / RATE);
  return Float32Array.from(runWet('stutter', named, { seconds: SECONDS, input, move }).left);
}

test('a cut that was open and is set while something is held, and opened again, makes no click', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('lowCut' as const, 'highCut' as const),
      between(0, 1),
      fc.integer({ min: HELD_FROM + 50, max: 350 }),
      (param, share, step) => {
        const hz = param === 'lowCut' ? 30 + 1970 * share : 200 + 19_000 * share;
        const changed = stuttered(param, hz, step, step + 100);
        expect(roughness(changed, (HELD_FROM + 40) * STEP_FRAMES)).toBeLessThan(CLICK);
      },
    ),
    { numRuns: 60 },
  );
});

test('open cuts change no sample, also after they were set', () => {
  const part = (samples: Float32Array, fromStep: number, toStep?: number): Float32Array =>
    samples.subarray(fromStep * STEP_FRAMES, toStep && toStep * STEP_FRAMES);
  const untouched = stuttered('highCut', 900, 250, 250);
  const opened = stuttered('highCut', 900, 250, 330);
  expect(part(opened, 310, 330)).not.toEqual(part(untouched, 310, 330));
  expect(part(opened, 450)).toEqual(part(untouched, 450));
});
