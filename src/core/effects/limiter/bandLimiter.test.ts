import { STEP_FRAMES } from '../../dsp/blocks';
import { makeRandom } from '../../dsp/random';
import { BandLimiter } from './bandLimiter';

test('the kernel and TypeScript filter alike, and delay alike what is too quiet', () => {
  const random = makeRandom(3);
  const [[fast], [plain]] = [BandLimiter.pair(true), BandLimiter.pair(false)];
  let apart = 0;
  for (let step = 0; step < 60; step += 1) {
    const level = step % 20 < 10 ? 1 : 0.01;
    const input = Float64Array.from({ length: STEP_FRAMES }, () => level * (random() - 0.5));
    const [a, b] = [fast.run(input, 0.1), plain.run(input, 0.1)];
    a.forEach((x, i) => (apart = Math.max(apart, Math.abs(x - b[i]!))));
  }
  expect(apart).toBeLessThan(1e-6);
});
