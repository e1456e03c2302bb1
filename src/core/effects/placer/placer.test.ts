import fc from 'fast-check';
import { between } from '../../testing';
import { PLAIN_CONTEXT } from '../../params/param';
import type { PlacePicture } from '../pictures';
import { responseAt } from '../../analysis/spectrum';
import { arrival, impulse, runWet } from '../testing';
import { placerImplementation } from './implementation';
import { PlacerProcessor } from './processor';

const pictureOf = (values: Readonly<Record<string, number | string>>): PlacePicture =>
  placerImplementation.picture(values, PLAIN_CONTEXT) as PlacePicture;

test('the picture’s figures are numbers on every path, wherever it begins', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('stand', 'circle', 'swing', 'eight', 'drawn'),
      between(0, 360),
      between(0.3, 30),
      fc.constantFrom(-3, 0, 6),
      fc.constantFrom(0, 2.5, -7),
      (path, direction, distance, height, corner) => {
        const corners = Object.fromEntries(
          Array.from({ length: 8 }, (_, i) => [
            [`x${i + 1}`, corner],
            [`y${i + 1}`, corner],
          ]).flat(),
        );
        const { itdMs, ildDb, at } = pictureOf({ path, direction, distance, height, ...corners });
        expect([itdMs, ildDb, at.x, at.y].every(Number.isFinite)).toBe(true);
      },
    ),
    { numRuns: 12 },
  );
});

test('the figures belong to where the sound is: a drawn path that begins at the right is heard there, whatever the direction says', () => {
  const { itdMs, ildDb } = pictureOf({ path: 'drawn', direction: 270, distance: 2, x1: 3, y1: 0 });
  const standing = pictureOf({ path: 'stand', direction: 90, distance: 3 });
  expect(itdMs).toBeCloseTo(standing.itdMs, 6);
  expect(ildDb).toBeCloseTo(standing.ildDb, 3);
});

test.each([44_100, 48_000, 96_000])(
  'it tells by how much it is late: a sound straight ahead arrives then, at %d Hz',
  (sampleRate) => {
    const { latency } = new PlacerProcessor(sampleRate);
    const { left } = runWet(
      'placer',
      { direction: 0, distance: 1, airDamping: 0, reflections: 0, head: 'time' },
      { sampleRate, seconds: 0.05, input: impulse },
    );
    expect(arrival(left, latency).at).toBeCloseTo(latency, 3);
  },
);

/** Levels of the left ear in dB at some frequencies, for a sound ahead or behind at a height. */
function levels(values: Readonly<Record<string, number>>): number[] {
  const plain = { direction: 0, distance: 2, airDamping: 0, reflections: 0, distanceLevel: 0 };
  const { left } = runWet('placer', { ...plain, ...values }, { seconds: 0.05, input: impulse });
  return responseAt(left, [1500, 3000, 5000, 7000, 9000, 12_000], 48_000);
}

const farthest = (a: readonly number[], b: readonly number[]): number =>
  Math.max(...a.map((level, i) => Math.abs(level - b[i]!)));

test('the outer ear alone tells behind from ahead, and above from below', () => {
  expect(farthest(levels({ direction: 0 }), levels({ direction: 180 }))).toBeLessThan(1e-6);
  expect(farthest(levels({ height: 2 }), levels({ height: -2 }))).toBeLessThan(1e-6);
  expect(farthest(levels({ direction: 0, outerEar: 1 }), levels({ direction: 180, outerEar: 1 }))).toBeGreaterThan(3);
  expect(farthest(levels({ height: 2, outerEar: 1 }), levels({ height: -2, outerEar: 1 }))).toBeGreaterThan(3);
});

test('the echoes lie where Brown and Duda put them: straight ahead at the height of the ears', () => {
  const plain = { direction: 0, distance: 2, airDamping: 0, reflections: 0, distanceLevel: 0, head: 'full' };
  const run = (outerEar: number): Float64Array =>
    runWet('placer', { ...plain, outerEar }, { sampleRate: 44_100, seconds: 0.02, input: impulse }).left;
  const [echoing, plainly] = [run(1), run(0)];
  const added = echoing.map((x, i) => x - plainly[i]!);
  // 2 + sin 90, 4 + 5 sin 45 and so on, straight between two samples.
  const at = new PlacerProcessor(44_100).latency;
  const wanted = [3, 4 + 5 * Math.SQRT1_2, 7 + 5 * Math.SQRT1_2, 11 + 5 * Math.SQRT1_2, 13 + 5 * Math.SQRT1_2];
  const gains = [0.5, -1, 0.5, -0.25, 0.25];
  const mean = added.reduce((sum, x, i) => sum + x * (i - at), 0);
  expect(mean).toBeCloseTo(
    wanted.reduce((sum, delay, k) => sum + delay * gains[k]!, 0),
    2,
  );
});
