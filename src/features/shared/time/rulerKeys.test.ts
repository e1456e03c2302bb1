import fc from 'fast-check';
import { barStart } from '../../../core/music/grid';
import { beatByKey, rangeTo } from './rulerKeys';

const tempo = { bpm: 100, beatsPerBar: 3.5 };

test.each([
  ['ArrowRight', 4.3, 5],
  ['ArrowLeft', 0.2, 0],
  ['PageDown', 3.5, 7],
  ['PageUp', 3.5, 0],
  ['PageUp', 5, 3.5],
  ['PageDown', 39, 40],
  ['Home', 12, 0],
  ['End', 12, 40],
])('%s leads from %d to %d', (key, from, to) => expect(beatByKey(key, from, 40, tempo)).toBe(to));

test('other keys lead nowhere', () => expect(beatByKey('a', 4, 40, tempo)).toBeNull());

test('with Shift the stretch grows from where the playhead was, shrinks on the way back, and is gone where it began', () => {
  const keys = fc.array(fc.constantFrom('ArrowRight', 'ArrowLeft', 'PageDown', 'PageUp', 'Home', 'End'), {
    maxLength: 12,
  });
  fc.assert(
    fc.property(keys, fc.nat(8), (pressed, bar) => {
      const anchor = barStart(bar + 1, tempo);
      let [playhead, range] = [anchor, null as ReturnType<typeof rangeTo>];
      for (const key of pressed) {
        const to = beatByKey(key, playhead, 40, tempo)!;
        range = rangeTo(range, playhead, to);
        playhead = to;
        expect(range).toEqual(
          playhead === anchor ? null : { start: Math.min(anchor, playhead), end: Math.max(anchor, playhead) },
        );
      }
    }),
  );
});
