import fc from 'fast-check';
import { decayCase, decays, describeCase, readDecay } from './stability';

test('whatever is set, sound in a loop below 100 % dies away without an offset, and silence is told no sooner than it is there', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e9 }), (number) => {
      const drawn = decayCase(number);
      const reading = readDecay(drawn);
      if (!decays(reading)) throw new Error(`${JSON.stringify(reading)} ${describeCase(drawn)}`);
    }),
    { numRuns: 300, endOnFailure: true },
  );
});
