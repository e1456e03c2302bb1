import { clipOf, scene, soundOf } from './testing';
import * as fc from 'fast-check';
import { between } from '../testing';
import { placeSeconds } from '../music/tempo';
import { nudged, nudgesOf } from './nudge';
import type { Piece } from './piece';
import { tempoOf } from './tempoOf';

const plain = scene([soundOf(1, () => 0)], [{ clips: [clipOf('a', 0, 0, 1)] }], { lengthBeats: 64 }).piece;
const point = (beat: number, value: number) => ({ beat, value, shape: 'line' as const, bend: 0 });
/** From 60 to 180 a minute over 32 beats. */
const quickening: Piece = {
  ...plain,
  lanes: [
    {
      id: 't',
      target: { kind: 'tempo' },
      unit: 'own',
      on: true,
      points: [point(0, 60), point(32, 180)],
    },
  ],
};

test('notes are a bar and parts of it, times the same wherever the tempo stands', () => {
  const [bar, beat, sixteenth, ten, one] = nudgesOf(plain);
  expect([bar, beat, sixteenth].map((nudge) => nudged(quickening, 10, nudge!, 1))).toEqual([14, 11, 10.25]);
  for (const at of [1, 16, 40]) {
    for (const [nudge, seconds] of [
      [ten!, 0.01],
      [one!, 0.001],
    ] as const) {
      expect(
        placeSeconds(nudged(quickening, at, nudge, 3), tempoOf(quickening)) - placeSeconds(at, tempoOf(quickening)),
      ).toBeCloseTo(3 * seconds, 9);
    }
  }
});

test('there and back again is where it was, and nothing goes before the piece', () => {
  fc.assert(
    fc.property(between(5, 60), fc.integer({ min: 0, max: 4 }), (at, which) => {
      const nudge = nudgesOf(plain)[which]!;
      expect(nudged(quickening, nudged(quickening, at, nudge, 1), nudge, -1)).toBeCloseTo(at, 6);
      expect(nudged(quickening, at, nudge, -1000_000)).toBe(0);
    }),
  );
});
