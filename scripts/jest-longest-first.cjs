const Sequencer = require('@jest/test-sequencer').default;

// On a new machine nobody knows yet how long a test takes, and the largest files would come first. What takes longest
// is often a short file: were it last, one worker would sit idle meanwhile.
const LONGEST = [
  'spaces.test.ts',
  'stability.test.ts',
  'accuracy.test.ts',
  'hostile.test.ts',
  'presets.test.ts',
  'effects.test.ts',
  'fuzz.test.ts',
  'clicks.test.ts',
  'exports.test.ts',
  'cli.test.ts',
  'reverseSwell.test.ts',
  'saltPier.test.ts',
  'bed.test.ts',
  'rehearsal.test.ts',
];

module.exports = class extends Sequencer {
  async sort(tests) {
    const rank = ({ path }) => {
      const at = LONGEST.findIndex((name) => path.endsWith(`/${name}`));
      return at < 0 ? LONGEST.length : at;
    };
    return [...(await super.sort(tests))].sort((a, b) => rank(a) - rank(b));
  }
};
