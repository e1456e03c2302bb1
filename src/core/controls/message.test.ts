import fc from 'fast-check';
import { between } from '../testing';
import { readControl, readNote, readTransport, takesHold } from './message';

test('a control change is read, by its channel and number; other messages and broken ones are left alone', () => {
  expect(readControl([0xb3, 21, 127])).toEqual({ midiChannel: 3, number: 21, position: 1 });
  expect(readControl([0xb0, 7, 0])).toEqual({ midiChannel: 0, number: 7, position: 0 });
  for (const bytes of [[0x90, 60, 100], [0xb0, 20], [0xb0, 200, 5], [0xf8], []]) expect(readControl(bytes)).toBeNull();
});

test('a control that is swept across takes hold no later than where the rail stands, and never far from it', () => {
  fc.assert(
    fc.property(between(0, 1), fc.boolean(), (stands, up) => {
      const way = Array.from({ length: 128 }, (_, i) => (up ? i : 127 - i) / 127);
      const first = way.findIndex((now, i) => takesHold(way[i - 1] ?? null, now, stands));
      return first >= 0 && Math.abs(way[first]! - stands) <= 3 / 127;
    }),
  );
  expect(takesHold(null, 0.2, 0.8)).toBe(false);
  expect(takesHold(0.1, 0.9, 0.5)).toBe(true);
});

test('notes and their pressure are read; a note-on of velocity 0 is a note-off', () => {
  expect(readNote([0x90, 36, 127])).toEqual({ kind: 'on', note: 36, midiChannel: 0, value: 1 });
  expect(readNote([0x9f, 36, 0])).toEqual({ kind: 'off', note: 36, midiChannel: 15, value: 0 });
  expect(readNote([0x82, 51, 64])).toEqual({ kind: 'off', note: 51, midiChannel: 2, value: 0 });
  expect(readNote([0xa1, 40, 127])).toEqual({ kind: 'pressure', note: 40, midiChannel: 1, value: 1 });
  expect(readNote([0xd3, 0])).toEqual({ kind: 'pressure', note: null, midiChannel: 3, value: 0 });
  for (const bytes of [[0xb0, 60, 100], [0x90, 60], [0x90, 200, 5], [0x90, 60, 255], [0xf8], []])
    expect(readNote(bytes)).toBeNull();
});

test('start, continue and stop are read; the clock and everything else is left alone', () => {
  expect([[0xfa], [0xfb], [0xfc]].map(readTransport)).toEqual(['start', 'continue', 'stop']);
  for (const bytes of [[0xf8], [0xfe], [0x90, 60, 100], []]) expect(readTransport(bytes)).toBeNull();
});
