import { scene, clipOf, echoSlot, laneOf, soundOf } from './testing';
import { applyEdit, applyPiecePatches, type Edit, type HistoryEntry } from './edit';
import { addEffect, setParams } from './edits/chain';
import { addTrack, renameTrack, setChannelParam } from './edits/channels';
import { moveClip } from './edits/clips';
import { recordMove } from './edits/lanes';
import { newTrack, type Piece } from './piece';
import { StandsOnIt, takeOut } from './takeOut';

/** A piece with what was done to it, edit after edit. */
class Story {
  entries: HistoryEntry[] = [];
  constructor(public piece: Piece) {}

  do<Args>(edit: Edit<Args>, args: Args): this {
    const done = applyEdit(this.piece, edit, args);
    this.piece = done.piece;
    this.entries = [
      ...this.entries,
      {
        id: `e${this.entries.length}`,
        at: '',
        edit: edit.name,
        label: done.label,
        forward: done.forward,
        backward: done.backward,
      },
    ];
    return this;
  }

  without(index: number): Piece {
    const done = takeOut(this.piece, this.entries, this.entries.length, index);
    expect(applyPiecePatches(done.piece, done.backward)).toEqual(this.piece);
    expect(applyPiecePatches(this.piece, done.forward)).toEqual(done.piece);
    return done.piece;
  }
}

const begin = (): Story =>
  new Story(
    scene([soundOf(1, () => 0.1)], [{ clips: [clipOf('a', 0, 0, 1), clipOf('b', 0, 4, 1)] }, { clips: [] }]).piece,
  );
const track = (id: string) => newTrack(id, id);

test('an edit taken out of the middle leaves what came before and after it, as if it had never been', () => {
  const with3 = begin()
    .do(addEffect, { channel: 't0', slot: echoSlot('e', {}), at: 0 })
    .do(moveClip, { clip: 'a', start: 2 })
    .do(renameTrack, { track: 't1', name: 'Other' });
  const without2 = begin()
    .do(addEffect, { channel: 't0', slot: echoSlot('e', {}), at: 0 })
    .do(renameTrack, { track: 't1', name: 'Other' });
  expect(with3.without(1)).toEqual(without2.piece);
});

test('places in lists do not matter: a track added before others goes, and what was done to those stays', () => {
  const story = begin()
    .do(addTrack, { track: track('x'), sounds: {} })
    .do(addTrack, { track: track('y'), sounds: {} })
    .do(setChannelParam, { channel: 'y', param: 'gain', value: 0.5 });
  expect(story.without(0).tracks.map(({ id, gain }) => [id, gain])).toEqual([
    ['t0', 1],
    ['t1', 1],
    ['y', 0.5],
  ]);
});

test('what later edits stand on is refused, with the name of the first of them', () => {
  const story = begin()
    .do(addEffect, { channel: 't0', slot: echoSlot('e', {}), at: 0 })
    .do(renameTrack, { track: 't1', name: 'Other' })
    .do(recordMove, {
      lane: laneOf('t0', 'e', 'input', [
        [0, 1],
        [4, 0.2],
      ]),
      how: 'draw',
    });
  expect(() => story.without(0)).toThrow(StandsOnIt);
  expect(() => story.without(0)).toThrow(/Add a lane/);
  const ridden = begin()
    .do(addEffect, { channel: 't0', slot: echoSlot('e', {}), at: 0 })
    .do(setParams, { channel: 't0', slot: 'e', values: { feedback: 0.7 } })
    .do(setParams, { channel: 't0', slot: 'e', values: { feedback: 0.2 } });
  expect(() => ridden.without(1)).toThrow(/cannot be taken out by itself/);
  // The last word on a value can be: it goes back to the one before.
  expect(ridden.without(2).tracks[0]!.chain[0]!.values.feedback).toBe(0.7);
});
