import { applyEdit } from '../../core/piece/edit';
import { addField, readyField } from '../../core/piece/edits/fields';
import { effectOf } from '../../core/effects/catalogue';
import { emptyPiece, MAIN } from '../../core/piece/piece';
import type { PlayField } from '../../core/piece/playField';
import { targetKey } from '../../core/piece/find';
import { FieldHand, type FieldHost } from './fieldHand';

const empty = { ...emptyPiece('p', 'P'), tempo: { bpm: 120, beatsPerBar: 4 } };
const made = readyField(empty, MAIN, 'filter', effectOf('filter').fields![0]!, { field: 'f', slot: 's' });
const piece = applyEdit(empty, addField, made).piece;

/** A hand with what it told, as text. */
function handOn(change: Partial<PlayField> = {}, playing = true) {
  const told: string[] = [];
  const host = { piece, beat: 0, playing } as { piece: FieldHost['piece']; beat: number; playing: boolean };
  const name = (target: Parameters<FieldHost['end']>[0]): string => targetKey(target).split('/').pop()!;
  const hand = new FieldHand({ ...made.field, ...change }, () => ({
    ...host,
    moveTo: ({ target, position }, atBeat) =>
      told.push(`${name(target)} ${position.toFixed(3)}${atBeat ? ` at ${atBeat}` : ''}`),
    end: (target) => told.push(`end ${name(target)}`),
    leaveInPlace: (field, places) => told.push(`leave ${field} ${places.length}`),
  }));
  return { hand, told, host };
}

test('a finger moves all that the field moves, a second one makes it finer, and it glides back and lets go', () => {
  const { hand, told } = handOn({ liftBeats: 1 });
  hand.begin({ x: 0, y: 1 });
  expect(told).toEqual(['cutoff 0.150', 'resonance 0.800', 'mix 1.000']);
  hand.moveBy(0.5, 0, false);
  expect(hand.point!.x).toBeCloseTo(0.5, 9);
  hand.moveBy(0.5, 0, true);
  expect(hand.point!.x).toBeCloseTo(0.6, 9);
  told.length = 0;
  hand.end(1000);
  hand.frame(1250);
  const [cutoff] = told;
  // Half the way back to the middle of its part of the rail.
  expect(Number(cutoff!.split(' ')[1])).toBeCloseTo(0.15 + 0.8 * 0.55, 2);
  expect(hand.point!.x).toBeCloseTo(0.55, 2);
  told.length = 0;
  hand.frame(1500);
  expect(told).toEqual(['end cutoff', 'end resonance', 'end mix']);
  expect(hand.point).toBeNull();
});

test('it stays where it was left, in one go', () => {
  const { hand, told } = handOn({ lift: 'stay' });
  hand.begin({ x: 0.2, y: 0.2 });
  told.length = 0;
  hand.end(0);
  expect(told).toEqual(['leave Low water 3']);
  hand.frame(10);
  expect(told).toHaveLength(1);
});

test('on a grid places count only on its lines, told just before them', () => {
  const { hand, told, host } = handOn({ grid: '1/8' });
  host.beat = 1.1;
  hand.begin({ x: 0, y: 0 });
  hand.frame(0);
  expect(told).toEqual([]);
  host.beat = 1.45;
  hand.moveBy(1, 0, false);
  hand.frame(16);
  expect(told).toEqual(['cutoff 0.950 at 1.5', 'resonance 0.000 at 1.5', 'mix 1.000 at 1.5']);
  hand.frame(32);
  expect(told).toHaveLength(3);
  host.beat = 1.99;
  hand.frame(48);
  expect(told).toHaveLength(6);
  expect(told[3]).toBe('cutoff 0.950 at 2');
});

test('while nothing plays a grid does not keep it waiting', () => {
  const { hand, told } = handOn({ grid: '1 bar' }, false);
  hand.begin({ x: 0, y: 0 });
  expect(told).toHaveLength(3);
  hand.cancel();
  expect(told.slice(3)).toEqual(['end cutoff', 'end resonance', 'end mix']);
});
