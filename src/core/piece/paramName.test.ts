import { EFFECTS } from '../effects/catalogue';
import { newSlot } from './edits/chain';
import { paramOf } from './find';
import { namedParam, paramName, sectionTitle } from './paramName';
import { emptyPiece, type Piece } from './piece';

test.each(EFFECTS.map(({ name, id }) => [name, id]))('no two parameters of %s have one name', (_, effect) => {
  const slot = newSlot('s', effect, 'neutral');
  const { paramIds } = EFFECTS.find(({ id }) => id === effect)!;
  const names = paramIds.map((id) => paramName(slot, id));
  expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
});

test('a label that is there once is left alone; one that repeats has its section before it', () => {
  expect(paramName({ effect: 'taps' }, 'feedback')).toBe('Feedback');
  expect(paramName({ effect: 'taps' }, 'time2')).toBe('Tap 2, time');
  expect(paramName({ effect: 'convolver' }, 'roomWidth')).toBe('Room, width');
});

test('parameters of a strand go by the name that it was given, and by its number without one', () => {
  const strands = [{ place: 2, name: 'Bloom', chain: [] }];
  expect(sectionTitle('Strand 2', { strands })).toBe('Bloom');
  expect(sectionTitle('Strand 3', { strands })).toBe('Strand 3');
  expect(sectionTitle('Order', { strands })).toBe('Order');
  expect(paramName({ effect: 'braid', strands }, 'level2')).toBe('Bloom, level');
  expect(paramName({ effect: 'braid', strands }, 'level3')).toBe('Strand 3, level');
});

test('the same effect gives the same parameter, with all but its label; a renamed strand another', () => {
  const slot = { effect: 'braid', strands: [{ place: 1, name: 'One', chain: [] }] };
  const param = namedParam(slot, 'level1')!;
  expect(namedParam(slot, 'level1')).toBe(param);
  const own = EFFECTS.find(({ id }) => id === 'braid')!.params.level1!;
  expect({ ...param, label: own.label }).toEqual(own);
  expect(namedParam({ ...slot, strands: [{ place: 1, name: 'Other', chain: [] }] }, 'level1')!.label).toBe(
    'Other, level',
  );
});

test.each(['nothing', '__proto__', 'toString'])('there is no parameter "%s"', (id) => {
  expect(namedParam({ effect: 'echo' }, id)).toBeUndefined();
  expect(namedParam({ effect: id }, 'mix')).toBeUndefined();
});

test('moves of two taps are told apart, also while they wait for taps', () => {
  const piece: Piece = { ...emptyPiece('p', 'P'), main: { gain: 1, chain: [newSlot('s', 'taps', 'neutral')] } };
  const label = (param: string) => paramOf(piece, { kind: 'effect', channel: 'main', effect: 's', param })?.label;
  expect([label('pan1'), label('pan2')]).toEqual(['Tap 1, pan', 'Tap 2, pan']);
  const waiting = { kind: 'awaited', channel: 'main', effectKind: 'taps', param: 'pan3' } as const;
  expect(paramOf(piece, waiting)!.label).toBe('Tap 3, pan');
});
