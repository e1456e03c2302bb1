import fc from 'fast-check';
import { IntegerDelayLine } from './integerDelayLine';

const BLOCK = 64;
const MAX_DELAY = 5000;

test('reads back what was written, to the bit, whenever and however far the reserved delay grows', () => {
  const delays = fc.array(fc.record({ steps: fc.integer({ min: 1, max: 40 }), delay: fc.nat(MAX_DELAY) }), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(delays, fc.boolean(), (phases, hasSmallRing) => {
      const line = new IntegerDelayLine(MAX_DELAY, BLOCK, hasSmallRing ? new Float64Array(256) : null);
      const block = new Float64Array(BLOCK);
      const out = new Float64Array(BLOCK);
      let written = 0;
      let readable = 0;
      for (const { steps, delay } of phases)
        for (let step = 0; step < steps; step += 1) {
          readable = Math.min(readable, line.reserve(delay)) + BLOCK;
          for (let i = 0; i < BLOCK; i += 1) block[i] = (written + i) % 9973;
          line.write(block);
          written += BLOCK;
          if (readable < delay + BLOCK) continue;
          line.read(delay, out);
          for (let i = 0; i < BLOCK; i += 1)
            if (out[i] !== Math.max(0, written - BLOCK + i - delay) % 9973) return false;
        }
      return true;
    }),
  );
});

test.each([[null], [256]])('after a clear every delay is silent, with a small ring of %s samples', (smallSize) => {
  const line = new IntegerDelayLine(MAX_DELAY, BLOCK, smallSize ? new Float64Array(smallSize) : null);
  const out = new Float64Array(BLOCK);
  line.reserve(MAX_DELAY);
  for (let k = 0; k < 100; k += 1) line.write(new Float64Array(BLOCK).fill(1));
  line.clear();
  line.write(new Float64Array(BLOCK));
  for (const delay of [0, 1, 63, 64, 1000, MAX_DELAY]) {
    line.reserve(delay);
    line.read(delay, out);
    expect(out.every((x) => x === 0)).toBe(true);
  }
});
