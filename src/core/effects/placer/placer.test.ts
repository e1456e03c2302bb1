import fc from 'fast-check';
import { between } from '../../testing';
import { PLAIN_CONTEXT } from '../../params/param';
import type { PlacePicture } from '../pictures';
import { arrival, impulse, runWet } from '../testing';
import { placer } from './placer';
import { PlacerProcessor } from './processor';

const pictureOf = (values: Readonly<Record<string, number | string>>): PlacePicture =>
  placer.picture(values, PLAIN_CONTEXT) as PlacePicture;

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
