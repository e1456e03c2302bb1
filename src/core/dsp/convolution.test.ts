import fc from 'fast-check';
import { between } from '../testing';
import { STEP_FRAMES } from './blocks';
import { Convolution, prepareImpulse } from './convolution';
import { makeRandom } from './random';

const MOST = 45_000;
const HEARD = 8192;
const tap = fc.record({ at: between(0, 0.9999), left: between(-1, 1), right: between(-1, 1) });

/** Lengths near the ends of partitions and stages, as often as any other. */
const lengths = fc.oneof(
  fc.integer({ min: 1, max: MOST }),
  fc
    .tuple(fc.constantFrom(64, 512, 768, 2048, 3072, 16_384, 24_576, 40_960), fc.integer({ min: -1, max: 1 }))
    .map(([end, by]) => end + by),
);

/** What the taps of one side answer to `input` from sample `from` on, worked out one by one. */
function direct(
  input: Float64Array,
  taps: readonly { readonly at: number; readonly gain: number }[],
  from: number,
): Float64Array {
  return Float64Array.from({ length: HEARD }, (_, i) =>
    taps.reduce((sum, { at, gain }) => sum + gain * (input[from + i - at] ?? 0), 0),
  );
}

test.each([true, false])(
  'an impulse of any length answers as its taps one by one would, from any moment on, with kernel %s',
  (withKernel) => {
    const convolution = new Convolution(MOST, withKernel);
    const random = makeRandom(3);
    const noise = Float64Array.from({ length: 1408 * STEP_FRAMES + HEARD }, () => random() - 0.5);
    fc.assert(
      fc.property(
        lengths,
        fc.array(tap, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 700 }),
        (length, taps, late) => {
          const places = taps.map(({ at }) => Math.floor(at * length));
          const [left, right] = [new Float32Array(length), new Float32Array(length)];
          taps.forEach((one, i) => {
            left[places[i]!] = one.left;
            right[places[i]!] = one.right;
          });
          convolution.load(prepareImpulse(left, right));
          // So late that all of the impulse is at work where it is listened to.
          const begin =
            STEP_FRAMES * Math.min(Math.ceil(length / STEP_FRAMES) + late, (noise.length - HEARD) / STEP_FRAMES);
          const heard = [new Float64Array(HEARD), new Float64Array(HEARD)] as const;
          for (let at = 0; at < begin + HEARD; at += STEP_FRAMES) {
            const out = [new Float64Array(STEP_FRAMES), new Float64Array(STEP_FRAMES)] as const;
            const input = noise.subarray(at, at + STEP_FRAMES);
            convolution.addTo(input, input, out[0], out[1]);
            if (at >= begin) heard.forEach((side, s) => side.set(out[s]!, at - begin));
          }
          const used = [...new Set(places)];
          [left, right].forEach((side, s) => {
            const wanted = direct(
              noise,
              used.map((at) => ({ at, gain: side[at]! })),
              begin,
            );
            let away = 0;
            for (let i = 0; i < HEARD; i += 1) away = Math.max(away, Math.abs(heard[s]![i]! - wanted[i]!));
            expect(away).toBeLessThan(1e-5);
          });
        },
      ),
      { numRuns: withKernel ? 40 : 6 },
    );
  },
);
