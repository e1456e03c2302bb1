import { GRIDS, gridBeats } from './params';
import { HoldTiming, NOT_NOW } from './timing';
import { EvenTime } from './testing';

const RATE = 48_000;

/** What a hand at some samples leads to: the samples at which it starts and ends. */
function played(
  hands: readonly (readonly [number, boolean])[],
  startGrid: number,
  endGrid: number,
  playing = true,
): (readonly [string, number])[] {
  // A beat is 24 000 samples.
  const time = new EvenTime(120, RATE, 3);
  time.playing = playing;
  const timing = new HoldTiming();
  timing.reset(false);
  const found: (readonly [string, number])[] = [];
  let held = false;
  for (time.at = 0; time.at < 3 * RATE; time.at += NOT_NOW) {
    const hand = hands.find(([sample]) => sample >= time.at && sample < time.at + NOT_NOW);
    if (hand) held = hand[1];
    timing.step(held, hand ? hand[0] - time.at : 0, startGrid, endGrid, time);
    const events = [['start', timing.startAt] as const, ['end', timing.endAt] as const].filter(
      ([, at]) => at < NOT_NOW,
    );
    found.push(...events.map(([what, at]) => [what, time.at + at] as const).sort((a, b) => a[1] - b[1]));
  }
  return found;
}

test('grids are what they are called', () => {
  expect(GRIDS.map((_, i) => gridBeats(i, 3))).toEqual([0, 1 / 8, 1 / 4, 1 / 2, 1, 2, 3, 6, 12]);
});

test('at once: a hold is as long as the hand, to the sample', () => {
  const hands = [
    [1000, true],
    [5005, false],
  ] as const;
  expect(played(hands, 0, 0)).toEqual([
    ['start', 1000],
    ['end', 5005],
  ]);
});

test('a hand that is early waits; one that lets go before its line holds until the end’s next one', () => {
  const tap = [
    [1000, true],
    [2000, false],
  ] as const;
  expect(played(tap, 1, 0.5)).toEqual([
    ['start', 24_000],
    ['end', 36_000],
  ]);
  // Where the end is free, it has not held at all.
  expect(played(tap, 1, 0)).toEqual([]);
  expect(
    played(
      [
        [23_999, true],
        [24_001, false],
      ],
      1,
      1,
    ),
  ).toEqual([
    ['start', 24_000],
    ['end', 48_000],
  ]);
});

test('on the very sample of a line it starts there; while nothing plays no line is waited for', () => {
  expect(played([[24_000, true]], 1, 1)).toEqual([['start', 24_000]]);
  expect(
    played(
      [
        [777, true],
        [3000, false],
      ],
      4,
      4,
      false,
    ),
  ).toEqual([
    ['start', 777],
    ['end', 3000],
  ]);
});

test('a hand that comes back before the end holds on, and starts again on its own line', () => {
  const hands = [
    [0, true],
    [30_000, false],
    [40_000, true],
    [50_000, false],
  ] as const;
  expect(played(hands, 1, 2)).toEqual([
    ['start', 0],
    ['start', 48_000],
    ['end', 96_000],
  ]);
});
