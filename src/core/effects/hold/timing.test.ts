import fc from 'fast-check';
import { STEP_FRAMES } from '../../dsp/blocks';
import { EvenTime } from './testing';
import { HoldTiming, NOT_NOW } from './timing';

/** Samples at which a hold starts and ends that is pressed and released at given samples. */
function played(samplesPerBeat: number, press: number, release: number, startGrid: number, endGrid: number): number[] {
  const timing = new HoldTiming();
  const time = new EvenTime(60, samplesPerBeat);
  const happened: number[] = [];
  timing.reset(false);
  for (; happened.length < 2; time.at += STEP_FRAMES) {
    const at = [press, release].find((sample) => sample >= time.at && sample < time.at + STEP_FRAMES);
    const held = time.at + STEP_FRAMES > press && time.at + STEP_FRAMES <= release;
    const until = at === undefined ? held : at === press;
    timing.step(until, at === undefined ? 0 : at - time.at, startGrid, endGrid, time);
    for (const offset of [timing.startAt, timing.endAt]) if (offset < NOT_NOW) happened.push(time.at + offset);
  }
  return happened;
}

/** The first line of a grid at or after a sample, by trying one line after another. */
function lineAfter(sample: number, grid: number, samplesPerBeat: number): number {
  let line = 0;
  while (Math.round(line * grid * samplesPerBeat) < sample) line += 1;
  return Math.round(line * grid * samplesPerBeat);
}

test('a hold starts on the first line after the hand and ends on the first after it has gone, wherever lines lie', () => {
  const grid = fc.constantFrom(1 / 8, 1 / 6, 1 / 4, 1 / 3, 1 / 2, 1, 1.5);
  fc.assert(
    fc.property(
      fc.double({ min: 8_000, max: 60_000, noNaN: true }),
      fc.integer({ min: 0, max: 100_000 }),
      // A hand that comes and goes within one step is seen as it is at its end.
      fc.integer({ min: STEP_FRAMES, max: 100_000 }),
      grid,
      grid,
      (samplesPerBeat, press, length, startGrid, endGrid) => {
        const start = lineAfter(press, startGrid, samplesPerBeat);
        const end = lineAfter(Math.max(press + length, start + 1), endGrid, samplesPerBeat);
        expect(played(samplesPerBeat, press, press + length, startGrid, endGrid)).toEqual([start, end]);
      },
    ),
    { numRuns: 2000 },
  );
});

test('a line that lies half a sample before a step is that of its first sample', () => {
  // Line 23 of thirty-seconds at 180.9442 BPM: 45 759.97 samples, and 45 760 is a step's first.
  const samplesPerBeat = (60 * 48_000) / 180.9442;
  expect(played(samplesPerBeat, 30_957, 43_771, 1 / 8, 1 / 8)).toEqual([31_833, 45_760]);
});
