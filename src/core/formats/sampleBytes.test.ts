import fc from 'fast-check';
import { between } from '../testing';
import { bytesOf, SampleWriter, type WavDepth } from './sampleBytes';

const written = (depth: WavDepth, channels: readonly number[][], cuts: readonly number[]): Uint8Array => {
  const writer = new SampleWriter(depth);
  const frames = channels[0]!.length;
  const out = new DataView(new ArrayBuffer(8 + frames * channels.length * bytesOf(depth)), 8);
  let at = 0;
  for (let i = 0; i + 1 < cuts.length; i += 1) at = writer.write(channels, cuts[i]!, cuts[i + 1]!, out, at);
  expect(at).toBe(out.byteLength);
  return new Uint8Array(out.buffer, 8);
};

/** Read by the upper 24 of 32 bits, so that the sign comes from the view. */
const read24 = (bytes: Uint8Array, at: number): number =>
  new DataView(Uint8Array.of(0, bytes[at]!, bytes[at + 1]!, bytes[at + 2]!).buffer).getInt32(0, true) >> 8;

const block = fc.integer({ min: 1, max: 40 }).chain((frames) => {
  const channel = fc.array(between(-1.5, 1.5), { minLength: frames, maxLength: frames });
  return fc.record({
    channels: fc.array(channel, { minLength: 1, maxLength: 3 }),
    cut: fc.integer({ min: 0, max: frames }),
    frames: fc.constant(frames),
  });
});

test('24 bits hold each sample to half a step, interleaved, and what is too loud stands at the end of the scale', () => {
  fc.assert(
    fc.property(block, ({ channels, frames }) => {
      const bytes = written('24', channels, [0, frames]);
      channels.forEach((channel, c) =>
        channel.forEach((x, i) => {
          const step = read24(bytes, 3 * (i * channels.length + c));
          expect(Math.abs(step - Math.max(-8_388_608, Math.min(8_388_607, x * 8_388_608)))).toBeLessThanOrEqual(0.5);
        }),
      );
    }),
  );
});

test.each(['16', '24', '32f'] as const)('%s bits in pieces are the bytes of the whole', (depth) => {
  fc.assert(
    fc.property(block, ({ channels, cut, frames }) => {
      expect(written(depth, channels, [0, cut, frames])).toEqual(written(depth, channels, [0, frames]));
    }),
  );
});

test('16 bits are dithered: a level between two steps is met on average, and the noise is a quarter of a step squared whatever the level', () => {
  const writer = new SampleWriter('16');
  const level = 100.3;
  const steps = Array.from({ length: 40_000 }, () => writer.step(level / 32_768));
  const mean = steps.reduce((sum, step) => sum + step, 0) / steps.length;
  const noise = steps.reduce((sum, step) => sum + (step - level) ** 2, 0) / steps.length;
  expect(Math.abs(mean - level)).toBeLessThan(0.01);
  // The triangle of two steps' width (1/6) and the rounding (1/12) do not know of each other.
  expect(Math.abs(noise - 1 / 4)).toBeLessThan(0.01);
});
