import fc from 'fast-check';
import { WholeDelay } from './wholeDelay';

const RUN = 64;
const LONGEST = 5000;

test('reads back what was written, to the bit, whenever and however far the reach grows', () => {
  const delays = fc.array(fc.record({ steps: fc.integer({ min: 1, max: 40 }), delay: fc.nat(LONGEST) }), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(delays, fc.boolean(), (stretches, isGiven) => {
      const line = new WholeDelay(LONGEST, RUN, isGiven ? new Float64Array(256) : null);
      const run = new Float64Array(RUN);
      const out = new Float64Array(RUN);
      let written = 0;
      let readable = 0;
      for (const { steps, delay } of stretches)
        for (let step = 0; step < steps; step += 1) {
          readable = Math.min(readable, line.reach(delay)) + RUN;
          for (let i = 0; i < RUN; i += 1) run[i] = (written + i) % 9973;
          line.write(run);
          written += RUN;
          if (readable < delay + RUN) continue;
          line.read(delay, out);
          for (let i = 0; i < RUN; i += 1) if (out[i] !== Math.max(0, written - RUN + i - delay) % 9973) return false;
        }
      return true;
    }),
  );
});

test('what was cleared is silent at every delay', () => {
  const line = new WholeDelay(LONGEST, RUN);
  const out = new Float64Array(RUN);
  line.reach(LONGEST);
  for (let k = 0; k < 100; k += 1) line.write(new Float64Array(RUN).fill(1));
  line.clear();
  line.reach(LONGEST);
  line.write(new Float64Array(RUN));
  for (const delay of [0, 1, 63, 64, 1000, LONGEST]) {
    line.read(delay, out);
    expect(out.every((x) => x === 0)).toBe(true);
  }
});
