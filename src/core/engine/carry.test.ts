import { clipOf, scene } from '../piece/testing';
import fc from 'fast-check';
import { between } from '../testing';
import { laneTrack, trackAt } from '../piece/moves/lane';
import { applyEdit, applyPiecePatches } from '../piece/edit';
import { channelOfTarget, isWaiting, paramOf } from '../piece/find';
import type { Lane, Piece, Target } from '../piece/piece';
import { compilePlan } from './compilePlan';
import { addEffect, newSlot } from '../piece/edits/chain';
import { copyClip, moveClip } from '../piece/edits/clips';
import { pointLane, setLanesTravel } from '../piece/edits/lanes';

const echo = (id: string): ReturnType<typeof newSlot> => newSlot(id, 'echo', 'neutral');
// A clip of two seconds at 120 BPM is four beats long.
const base: Piece = scene(
  [],
  [
    { clips: [clipOf('c', 0, 8, 2)], chain: [echo('a')] },
    { clips: [], chain: [newSlot('f', 'filter', 'neutral'), echo('b')] },
    { clips: [], chain: [] },
  ],
).piece;
const lane: Lane = {
  id: 'lane',
  target: { kind: 'effect', channel: 't0', effect: 'a', param: 'input' },
  unit: 'own',
  on: true,
  points: [
    { beat: 0, value: 0.2, shape: 'line', bend: 0 },
    { beat: 10, value: 0.9, shape: 'curve', bend: 0.3 },
    { beat: 20, value: 0.4, shape: 'line', bend: 0 },
  ],
};
const travelling: Piece = { ...base, lanes: [{ ...lane, travels: true }] };
const valueAt = (piece: Piece, made: Lane, beat: number): number =>
  trackAt(laneTrack(piece, made, paramOf(piece, made.target)!), beat);
const onTrack = (piece: Piece, channel: string): Lane =>
  piece.lanes.find(({ target }) => channelOfTarget(target) === channel)!;

test('a lane of the track stays where it is when a clip goes', () => {
  expect(applyEdit({ ...base, lanes: [lane] }, moveClip, { clip: 'c', start: 30 }).piece.lanes).toEqual([lane]);
});

test('moves that travel go with the clip, keep every value, and leave the base value behind; undo brings all back', () => {
  fc.assert(
    fc.property(
      between(0, 60).filter((start) => Math.abs(start - 8) > 4.1),
      between(0.01, 3.99),
      (start, within) => {
        const { piece, backward } = applyEdit(travelling, moveClip, { clip: 'c', start });
        const moved = onTrack(piece, 't0');
        return (
          Math.abs(valueAt(piece, moved, start + within) - valueAt(base, lane, 8 + within)) < 1e-5 &&
          Math.abs(valueAt(piece, moved, 8 + within) - 1) < 1e-6 &&
          JSON.stringify(applyPiecePatches(piece, backward)) === JSON.stringify(travelling)
        );
      },
    ),
  );
});

test('a copy takes a copy of them along', () => {
  const { piece } = applyEdit(travelling, copyClip, { clip: 'c', start: 24, track: 't0', id: 'd' });
  const made = onTrack(piece, 't0');
  for (const within of [0.5, 2, 3.5]) {
    expect(valueAt(piece, made, 24 + within)).toBeCloseTo(valueAt(base, lane, 8 + within), 5);
    expect(valueAt(piece, made, 8 + within)).toBeCloseTo(valueAt(base, lane, 8 + within), 5);
  }
});

test('on another track they act on the same parameter of the same kind of effect', () => {
  const { piece } = applyEdit(travelling, moveClip, { clip: 'c', start: 16, track: 't1' });
  const there = onTrack(piece, 't1');
  expect(there.target).toEqual({ kind: 'effect', channel: 't1', effect: 'b', param: 'input' });
  expect(there.travels).toBe(true);
  expect(valueAt(piece, there, 18)).toBeCloseTo(valueAt(base, lane, 10), 5);
  expect(piece.tracks.map(({ clips }) => clips.length)).toEqual([0, 1, 0]);
});

test('where there is nothing for them to act on they wait, and act when it comes', () => {
  const { piece } = applyEdit(travelling, moveClip, { clip: 'c', start: 16, track: 't2' });
  const waiting = onTrack(piece, 't2');
  expect(waiting.target).toEqual({ kind: 'awaited', channel: 't2', effectKind: 'echo', param: 'input' });
  expect(isWaiting(piece, waiting.target)).toBe(true);
  expect(valueAt(piece, waiting, 18)).toBeCloseTo(valueAt(base, lane, 10), 5);
  expect(compilePlan(piece).channels[2]!.lanes).toEqual([]);
  const come = applyEdit(piece, addEffect, { channel: 't2', slot: echo('late'), at: 0 }).piece;
  expect(onTrack(come, 't2').target).toEqual({ kind: 'effect', channel: 't2', effect: 'late', param: 'input' });
  expect(compilePlan(come).channels[2]!.lanes).toHaveLength(1);
  // Back where they came from they are on what they moved.
  const home = applyEdit(piece, moveClip, { clip: 'c', start: 8, track: 't0' }).piece;
  for (const beat of [8.5, 10, 11.5])
    expect(valueAt(home, onTrack(home, 't0'), beat)).toBeCloseTo(valueAt(base, lane, beat), 4);
});

test('waiting moves can be pointed at another parameter, where they keep their places on the rail', () => {
  const { piece } = applyEdit(travelling, moveClip, { clip: 'c', start: 16, track: 't2' });
  const waiting = onTrack(piece, 't2');
  const to: Target = { kind: 'channel', channel: 't2', param: 'pan' };
  const pointed = onTrack(applyEdit(piece, pointLane, { lane: waiting.id, to }).piece, 't2');
  expect(pointed.target).toEqual(to);
  expect(valueAt(piece, pointed, 18)).toBeCloseTo(valueAt(piece, waiting, 18), 6);
  expect(() =>
    applyEdit({ ...piece, lanes: [...piece.lanes, { ...pointed, id: 'other' }] }, pointLane, { lane: waiting.id, to }),
  ).toThrow('has moves of its own');
});

test('converting either way changes no value', () => {
  const there = applyEdit({ ...base, lanes: [lane] }, setLanesTravel, { lanes: ['lane'], travels: true }).piece;
  expect(there.lanes[0]).toEqual({ ...lane, travels: true });
  expect(applyEdit(there, setLanesTravel, { lanes: ['lane'], travels: false }).piece.lanes[0]).toEqual(lane);
});
