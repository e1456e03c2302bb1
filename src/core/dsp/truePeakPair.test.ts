import { STEP_FRAMES } from './blocks';
import { makeRandom } from './random';
import { TruePeakPair } from './truePeakPair';

const RUNS = 200;

/**
 * Largest shortfall of the kernel's peaks, and largest excess over what TypeScript's quick reading may miss, of loud
 * noise and tones.
 */
function apart(wave: (i: number) => number, floor: number): { under: number; over: number } {
  const fast = new TruePeakPair(true);
  const plain = new TruePeakPair(false);
  let [under, over] = [0, 0];
  for (let run = 0; run < RUNS; run += 1) {
    const left = Float64Array.from({ length: STEP_FRAMES }, (_, i) => wave(run * STEP_FRAMES + i));
    const right = left.map((x) => 0.3 * x);
    const found = new Float64Array(STEP_FRAMES);
    const known = new Float64Array(STEP_FRAMES);
    fast.run(left, right, floor, found);
    plain.run(left, right, floor, known);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      if (known[i]! >= floor) under = Math.max(under, known[i]! - found[i]!);
      over = Math.max(over, found[i]! - known[i]!);
    }
  }
  return { under, over };
}

const random = makeRandom(5);
test.each([
  ['noise', () => random() * 2 - 1],
  ['a tone a little off a quarter of the rate', (i: number) => 0.9 * Math.sin(1.5607 * i + 0.7)],
  ['a tone near half the rate', (i: number) => 0.9 * Math.sin(2.9 * i)],
  ['a deep tone', (i: number) => 0.9 * Math.sin(0.01 * i)],
] as const)('the kernel finds every peak between samples that TypeScript finds: %s', (_what, wave) => {
  for (const floor of [0, 0.5, 0.8]) {
    const { under, over } = apart(wave, floor);
    expect(under).toBeLessThan(1e-5);
    expect(over).toBeLessThan(0.6);
  }
});

test('what is too quiet to reach the floor is left', () => {
  const peaks = new Float64Array(STEP_FRAMES);
  new TruePeakPair(true).run(new Float64Array(STEP_FRAMES).fill(0.01), new Float64Array(STEP_FRAMES), 0.8, peaks);
  expect(Math.max(...peaks)).toBe(0);
});
