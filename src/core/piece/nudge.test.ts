import { clipOf, scene, soundOf } from './testing';
import * as fc from 'fast-check';
import { between } from '../testing';
import { placeSeconds } from '../music/tempo';
import { nudged, NUDGES } from './nudge';
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
  const [bar, beat, sixteenth, ten, one] = NUDGES;
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
      const nudge = NUDGES[which]!;
      expect(nudged(quickening, nudged(quickening, at, nudge, 1), nudge, -1)).toBeCloseTo(at, 6);
      expect(nudged(quickening, at, nudge, -1000_000)).toBe(0);
    }),
  );
});

test('a bar is as long as the metre that is there', () => {
  const waltz: Piece = {
    ...plain,
    sections: [{ id: 's', name: 'Waltz', beat: 8, metre: { beatsPerBar: 3, unit: 4 } }],
  };
  const [bar] = NUDGES;
  expect([0, 4, 8, 9.5, 14].map((at) => nudged(waltz, at, bar!, 1))).toEqual([4, 8, 11, 12.5, 17]);
  expect([4, 8, 11, 9.5].map((at) => nudged(waltz, at, bar!, -1))).toEqual([0, 4, 8, 6]);
});
