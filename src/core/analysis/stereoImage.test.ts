import { makeRandom } from '../dsp/random';
import { StereoImage } from './stereoImage';

const RUN = 64;

function imageOf(wave: (i: number, random: () => number) => readonly [number, number]): StereoImage {
  const image = new StereoImage(RUN, 48_000);
  const random = makeRandom(2);
  const [left, right] = [new Float64Array(RUN), new Float64Array(RUN)];
  for (let run = 0; run < 6000; run += 1) {
    for (let i = 0; i < RUN; i += 1) [left[i], right[i]] = wave(run * RUN + i, random) as [number, number];
    image.process(left, right);
  }
  return image;
}

test.each([
  ['mono', (i: number) => [Math.sin(i * 0.05), Math.sin(i * 0.05)] as const, 1, 0],
  ['one side turned over', (i: number) => [Math.sin(i * 0.05), -Math.sin(i * 0.05)] as const, -1, -60],
  ['one side alone', (i: number) => [Math.sin(i * 0.05), 0] as const, 1, -3.01],
  ['two noises', (_: number, random: () => number) => [random() - 0.5, random() - 0.5] as const, 0, -3.01],
  [
    'half alike',
    (_: number, random: () => number) => {
      const [a, b] = [random() - 0.5, random() - 0.5];
      return [a, 0.5 * a + Math.sqrt(0.75) * b] as const;
    },
    0.5,
    -1.25,
  ],
])('%s: correlation and loss in mono', (_name, wave, correlation, loss) => {
  const image = imageOf(wave);
  expect(Math.abs(image.correlation - correlation)).toBeLessThan(0.03);
  expect(Math.abs(image.monoDb - loss)).toBeLessThan(0.15);
});
