import fc from 'fast-check';
import { decayCase, decays, describeCase, readDecay } from './stability';

/** Six parts of fifty cases each; 20 000 are drawn by `npm run check:decay`. */
const PARTS = [1, 2, 3, 4, 5, 6];

test.each(PARTS)(
  'whatever is set, sound in a loop below 100 %% dies away without an offset, and silence is told no sooner than it is there: part %d',
  (part) => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e8 }), (number) => {
        const drawn = decayCase(number + part * 1e8);
        const reading = readDecay(drawn);
        if (!decays(reading)) throw new Error(`${JSON.stringify(reading)} ${describeCase(drawn)}`);
      }),
      { numRuns: 50, endOnFailure: true },
    );
  },
);
