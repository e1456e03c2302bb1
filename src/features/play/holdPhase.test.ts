import fc from 'fast-check';
import { emptyPiece } from '../../core/piece/piece';
import { HoldPhaseTracker, type HoldReading } from './holdPhase';

const piece = { ...emptyPiece('p', 'P'), loop: { on: false, start: 0, end: 16 } };
const reading = (beat: number, more: Partial<HoldReading> = {}): HoldReading => ({
  beat,
  playing: true,
  hand: undefined,
  held: false,
  soundsInEngine: true,
  endGrid: 0,
  piece,
  ...more,
});

test('an early hand waits for its line, sounds, and sounds on until the line of its end', () => {
  const tracker = new HoldPhaseTracker();
  const hand = { since: 1.2, waitsUntil: 2, value: true };
  const more = { hand, endGrid: 1 };
  expect(tracker.update(reading(1.2, more))).toBe('waiting');
  expect(tracker.left(1.6)).toBeCloseTo(0.5, 9);
  expect(tracker.update(reading(2.01, more))).toBe('sounding');
  expect(tracker.began).toBe(2);
  expect(tracker.update(reading(2.4, { endGrid: 1 }))).toBe('sounding');
  expect(tracker.update(reading(2.99, { endGrid: 1 }))).toBe('sounding');
  expect(tracker.update(reading(3, { endGrid: 1 }))).toBe('asleep');
});

test('let go before its line it still comes where its end has a grid, and has not held where it has none', () => {
  const hand = { since: 1.2, waitsUntil: 2, value: true };
  const early = new HoldPhaseTracker();
  early.update(reading(1.2, { hand, endGrid: 0.5 }));
  expect(early.update(reading(1.5, { endGrid: 0.5 }))).toBe('waiting');
  expect(early.update(reading(2.1, { endGrid: 0.5 }))).toBe('sounding');
  expect(early.update(reading(2.5, { endGrid: 0.5 }))).toBe('asleep');
  const free = new HoldPhaseTracker();
  free.update(reading(1.2, { hand }));
  expect(free.update(reading(1.5))).toBe('asleep');
});

test('what a lane holds sounds without a hand, and nothing rings while nothing plays', () => {
  const tracker = new HoldPhaseTracker();
  expect(tracker.update(reading(4, { held: true }))).toBe('sounding');
  expect(tracker.update(reading(5, { playing: false, endGrid: 4 }))).toBe('asleep');
});

test('whatever comes, a hold is asleep at last within its grid', () => {
  const beat = fc.double({ min: 0, max: 16, noNaN: true });
  fc.assert(
    fc.property(fc.array(fc.tuple(beat, fc.boolean(), beat)), fc.constantFrom(0, 0.25, 1, 4), (frames, endGrid) => {
      const tracker = new HoldPhaseTracker();
      for (const [at, isHeld, line] of frames)
        tracker.update(
          reading(at, { endGrid, hand: isHeld ? { since: at, waitsUntil: line, value: true } : undefined }),
        );
      let at = 100;
      for (let i = 0; i < 400; i += 1) tracker.update(reading((at += 0.05), { endGrid }));
      expect(tracker.phase).toBe('asleep');
    }),
  );
});

test('let go of with all others it is asleep at once, whatever its grid; one that has just begun is given time to be heard of', () => {
  const tracker = new HoldPhaseTracker();
  const grid = { endGrid: 4 };
  tracker.update(reading(1, { ...grid, hand: { since: 1, waitsUntil: null, value: true } }));
  expect(tracker.update(reading(1.1, { ...grid, soundsInEngine: false }))).toBe('sounding');
  expect(tracker.update(reading(1.2, grid))).toBe('sounding');
  expect(tracker.update(reading(2, grid))).toBe('sounding');
  expect(tracker.update(reading(2.1, { ...grid, soundsInEngine: false }))).toBe('asleep');
  expect(tracker.update(reading(2.2, grid))).toBe('asleep');
});
