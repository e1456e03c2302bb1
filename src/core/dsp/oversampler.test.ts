import { STEP_FRAMES, makeStereoBlock } from './blocks';
import { Oversampler } from './oversampler';
import { makeRandom } from './random';
import { DRIVE_KINDS, shapedAt } from './saturate';

const RATE = 48_000;
const FACTORS = [2, 4, 8] as const;

function through(
  made: Oversampler,
  seconds: number,
  wave: (i: number) => number,
  kind: number,
  drive: number,
): { input: Float64Array; output: Float64Array } {
  const frames = Math.ceil((seconds * RATE) / STEP_FRAMES) * STEP_FRAMES;
  const [input, output] = [Float64Array.from({ length: frames }, (_, i) => wave(i)), new Float64Array(frames)];
  const block = makeStereoBlock();
  for (let at = 0; at < frames; at += STEP_FRAMES) {
    block.left.set(input.subarray(at, at + STEP_FRAMES));
    block.right.set(block.left);
    made.process(block, kind, drive, drive);
    output.set(block.left, at);
  }
  return { input, output };
}

/** Level of a tone in a whole second, in dB, under a window that hides its edges. */
function levelAt(samples: Float64Array, hz: number): number {
  const second = samples.subarray(samples.length - RATE);
  let [re, im] = [0, 0];
  for (let i = 0; i < RATE; i += 1) {
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / RATE);
    re += second[i]! * window * Math.cos((2 * Math.PI * hz * i) / RATE);
    im += second[i]! * window * Math.sin((2 * Math.PI * hz * i) / RATE);
  }
  return 20 * Math.log10((4 * Math.hypot(re, im)) / RATE + 1e-12);
}

describe.each(FACTORS)('%i times the rate', (factor) => {
  test('the kernel does what its reference does', () => {
    const random = makeRandom(5);
    const noise = Float64Array.from({ length: RATE / 4 }, () => random() - 0.5);
    DRIVE_KINDS.forEach((_, kind) => {
      const [fast, plain] = [true, false].map(
        (withKernel) =>
          through(new Oversampler(factor, withKernel), 0.25, (i) => noise[i % noise.length]!, kind, 4).output,
      );
      expect(fast!.reduce((most, x, i) => Math.max(most, Math.abs(x - plain![i]!)), 0)).toBeLessThan(1e-5);
    });
  });

  test('clean, it passes everything up to 18 kHz as it is, later by a whole number of samples', () => {
    const made = new Oversampler(factor);
    expect(Number.isInteger(made.latency)).toBe(true);
    for (const hz of [40, 1000, 9000, 18_000]) {
      const { input, output } = through(
        new Oversampler(factor),
        0.2,
        (i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / RATE),
        0,
        1,
      );
      let away = 0;
      for (let i = 4800; i < 9600; i += 1) away = Math.max(away, Math.abs(output[i]! - input[i - made.latency]!));
      // The last filter is even to half a tenth of a dB.
      expect(away).toBeLessThan(0.003);
    }
  });

  test('quiet and slow, it shapes as the curve says', () => {
    const made = new Oversampler(factor);
    DRIVE_KINDS.forEach((_, kind) => {
      const { input, output } = through(
        new Oversampler(factor),
        0.5,
        (i) => 0.6 * Math.sin((2 * Math.PI * 30 * i) / RATE),
        kind,
        3,
      );
      let away = 0;
      for (let i = 4800; i < 20_000; i += 1)
        away = Math.max(away, Math.abs(output[i]! - shapedAt(input[i - made.latency]!, kind, 3)));
      // A hard clip has corners, which no rate has room for.
      expect(away).toBeLessThan(DRIVE_KINDS[kind] === 'hard' ? 0.01 : 1e-3);
    });
  });
});

test('at eight times, a driven tone of 5 kHz folds back less than -70 dB under it; without, far more', () => {
  const hz = 5000;
  const tone = (i: number): number => 0.5 * Math.sin((2 * Math.PI * hz * i) / RATE);
  const { output } = through(new Oversampler(8), 1.2, tone, DRIVE_KINDS.indexOf('tape'), 8);
  const plain = Float64Array.from({ length: 1.2 * RATE }, (_, i) => shapedAt(tone(i), 0, 8));
  // Odd harmonics beyond half the rate come back at 48 - 25 = 23, 48 - 35 = 13, 48 - 45 = 3 kHz.
  for (const folded of [3000, 13_000]) {
    expect(levelAt(output, folded) - levelAt(output, hz)).toBeLessThan(-70);
    expect(levelAt(plain, folded) - levelAt(plain, hz)).toBeGreaterThan(-50);
  }
});
