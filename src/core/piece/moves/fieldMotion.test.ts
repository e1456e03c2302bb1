import fc from 'fast-check';
import { EFFECTS } from '../../effects/catalogue';
import { between } from '../../testing';
import { applyEdit } from '../edit';
import { addField, readyField } from '../edits/fields';
import { removeEffect } from '../edits/chain';
import { contextOf, findSlot, paramOf } from '../find';
import { emptyPiece, MAIN, pieceSchema, type Piece } from '../piece';
import { axesOf, LIFTS, type PlayField } from '../playField';
import { notchesOf } from '../../params/notches';
import { remainingAfter, positionsAt, playedNumber, restPositions, restPoint } from './fieldMotion';
import { baseInUnit, laneNumber, laneUnit, numberInUnit } from './lane';

const ready = EFFECTS.flatMap(({ id, fields }) => (fields ?? []).map((field) => ({ id, field })));

/** A piece with a ready-made field on the main output. */
function pieceWith({ id, field }: (typeof ready)[number], bpm = 100): { piece: Piece; field: PlayField } {
  const piece = { ...emptyPiece('p', 'P'), tempo: { bpm, beatsPerBar: 4 } };
  const made = readyField(piece, MAIN, id, field, { field: 'f', slot: 's' });
  return { piece: applyEdit(piece, addField, made).piece, field: made.field };
}

test.each(ready)('$field.name: stored as a piece, at rest in the centre, and gone with its effect', (one) => {
  const { piece, field } = pieceWith(one);
  expect(pieceSchema.safeParse(piece).error?.issues ?? []).toEqual([]);
  const rest = restPoint(piece, field, 0);
  expect([rest.x, rest.y]).toEqual([expect.closeTo(0.5, 1), expect.closeTo(0.5, 1)]);
  for (const { target } of axesOf(field)) expect(paramOf(piece, target)?.kind).toBe('number');
  // In the centre nothing is heard of it.
  const away = positionsAt(piece, field, { x: 0.5, y: 0.5 })[2]!;
  expect(away.position).toBe(0);
  expect(restPositions(piece, field, 0)[2]!.position).toBe(0);
  expect(applyEdit(piece, removeEffect, { channel: MAIN, slot: 's' }).piece.fields).toEqual([]);
});

test('a field covers its part of each rail, whichever way round, and never leaves it', () => {
  const { piece, field } = pieceWith(ready.find(({ id }) => id === 'filter')!);
  fc.assert(
    fc.property(between(0, 1), between(0, 1), between(-1, 2), between(-1, 2), (from, to, x, y) => {
      const turned = { ...field, across: { ...field.across, from, to } };
      const [across, up, away] = positionsAt(piece, turned, { x, y });
      const inside = Math.max(0, Math.min(1, x));
      expect(across!.position).toBeCloseTo(from + (to - from) * inside, 12);
      for (const { position } of [across!, up!, away!]) expect(position >= 0 && position <= 1).toBe(true);
    }),
  );
});

test('an axis of notes takes note values only, the nearest of its part', () => {
  const echo = ready.find(({ id }) => id === 'echo')!;
  fc.assert(
    fc.property(fc.integer({ min: 43, max: 231 }), between(0, 1), (bpm, x) => {
      const { piece, field } = pieceWith(echo, bpm);
      const [across] = positionsAt(piece, field, { x, y: 0.5 });
      const notches = notchesOf(paramOf(piece, field.across.target)!, contextOf(piece)).filter(({ major }) => major);
      expect(notches.some(({ position }) => position === across!.position)).toBe(true);
      const wanted = field.across.from + (field.across.to - field.across.from) * x;
      const reachable = notches.filter(({ position }) => position >= field.across.from && position <= field.across.to);
      const nearest = Math.min(...reachable.map(({ position }) => Math.abs(position - wanted)));
      expect(Math.abs(across!.position - wanted)).toBeCloseTo(nearest, 12);
    }),
  );
});

test('lifted it glides back without going beyond, springs through and comes to rest, or stays', () => {
  for (const lift of LIFTS) expect(remainingAfter(lift, 0)).toBe(1);
  const path = (lift: (typeof LIFTS)[number]): number[] =>
    Array.from({ length: 101 }, (_, i) => remainingAfter(lift, i / 100));
  const glide = path('glide');
  expect(glide.every((left, i) => i === 0 || left <= glide[i - 1]!)).toBe(true);
  expect(glide[100]).toBe(0);
  const spring = path('spring');
  expect(Math.min(...spring)).toBeLessThan(-0.1);
  expect(Math.abs(spring[99]!)).toBeLessThan(0.01);
  expect(new Set(path('stay'))).toEqual(new Set([1]));
});

test('a number that is played is the one that its lane gives back, and so is a base value, at any tempo', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 20, max: 300 }),
      between(0, 1),
      fc.constantFrom('1/8', '1/4d', '1/16t', 250),
      (bpm, at, timeL) => {
        const { piece, field } = pieceWith(
          ready.find(({ id }) => id === 'echo')!,
          bpm,
        );
        const slot = findSlot(piece, MAIN, 's')!;
        const set = { ...piece, main: { ...piece.main, chain: [{ ...slot, values: { ...slot.values, timeL } }] } };
        const { target } = field.across;
        const param = paramOf(set, target)!;
        const unit = laneUnit(set, target);
        expect(unit).toBe(typeof timeL === 'string' ? 'beats' : 'own');
        const played = playedNumber(set, target, 1 + 3999 * at);
        expect(laneNumber(set, { unit }, param, numberInUnit(set, played, unit))).toBe(played);
        expect(laneNumber(set, { unit }, param, baseInUnit(set, target, param, unit))).toBe(
          baseInUnit(set, target, param, 'own'),
        );
      },
    ),
  );
});
