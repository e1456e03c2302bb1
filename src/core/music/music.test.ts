import fc from 'fast-check';
import { between } from '../testing';
import { toBarBeat } from './grid';
import {
  nearestNote,
  noteBeats,
  noteId,
  noteLadder,
  noteName,
  noteSeconds,
  NOTE_BASES,
  NOTE_FEELS,
  parseNote,
} from './noteValue';
import { beatsToSamples, bpmFromTaps, samplesToBeats } from './tempo';

describe('note values', () => {
  test.each([
    ['1/8d', 90, 0.5],
    ['1/8', 120, 0.25],
    ['1/4t', 90, 4 / 9],
    ['1/64', 60, 1 / 16],
    ['4 bars', 120, 8],
    ['1/8.', 92, 45 / 92],
  ])('%s at %d BPM lasts %d s', (text, bpm, seconds) => {
    expect(noteSeconds(parseNote(text)!, { bpm, beatsPerBar: 4 })).toBeCloseTo(seconds, 12);
  });

  test('a bar of 6/8 holds three quarters', () => {
    expect(noteBeats(parseNote('1 bar')!, 3)).toBe(3);
  });

  test('every value is read back from its short and its spoken form', () => {
    for (const base of NOTE_BASES) {
      for (const feel of NOTE_FEELS) {
        expect(parseNote(noteId({ base, feel }))).toEqual({ base, feel });
        expect(parseNote(noteName({ base, feel }))).toEqual({ base, feel });
      }
    }
  });

  test('any fraction of a whole note and any number of beats is one, in the fewest parts, and is read back', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 64 }),
        fc.constantFrom(1, 2, 4, 8, 16, 32, 64),
        fc.constantFrom('', 'd', 't'),
        (count, parts, feel) => {
          const note = parseNote(`${count}/${parts}${feel}`)!;
          const factor = feel === 'd' ? 1.5 : feel === 't' ? 2 / 3 : 1;
          expect(noteBeats(note, 4)).toBeCloseTo(((4 * count) / parts) * factor, 10);
          expect(parseNote(noteId(note))).toEqual(note);
          expect(parseNote(noteName(note))).toEqual(note);
        },
      ),
    );
    expect(['2/16', '4/4', '6/32'].map((text) => noteId(parseNote(text)!))).toEqual(['1/8', '1/1', '3/16']);
    expect(['2 beats', '1 beat', '1.5 beats', '5 beats'].map((text) => noteBeats(parseNote(text)!, 3))).toEqual([
      2, 1, 1.5, 5,
    ]);
    for (const text of ['3/7', '0/4', '65/64', '1.3 beats', '3/16 of']) expect(parseNote(text)).toBeNull();
  });

  test('what is no note value is refused', () => {
    for (const text of ['', '1/7', 'dotted', '3 bars', '250 ms', '1/8dd']) expect(parseNote(text)).toBeNull();
  });

  test('the ladder rises without doubles, and each rung is its own nearest', () => {
    const ladder = noteLadder(4).map((note) => noteBeats(note, 4));
    ladder.slice(1).forEach((beats, i) => expect(beats).toBeGreaterThan(ladder[i]!));
    for (const note of noteLadder(4)) expect(nearestNote(noteBeats(note, 4), 4)).toEqual(note);
  });
});

test('a place that came from a sample goes back to that sample', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 400_000_000 }),
      between(20, 300),
      fc.constantFrom(44_100, 48_000, 96_000),
      (sample, bpm, rate) => {
        const tempo = { bpm, beatsPerBar: 4 };
        return beatsToSamples(samplesToBeats(sample, tempo, rate), tempo, rate) === sample;
      },
    ),
  );
});

test('tapping gives the tempo, one late tap does no harm', () => {
  expect(bpmFromTaps([0, 0.5, 1, 1.5, 2])).toBeCloseTo(120, 9);
  expect(bpmFromTaps([0, 0.5, 1, 1.72, 2, 2.5, 3])).toBeCloseTo(120, 9);
  expect(bpmFromTaps([3])).toBeNull();
});

test('bars and beats count from one', () => {
  const tempo = { bpm: 92, beatsPerBar: 4 };
  expect(toBarBeat(0, tempo)).toEqual({ bar: 1, beat: 1 });
  expect(toBarBeat(17.99, tempo)).toEqual({ bar: 5, beat: 2 });
});
