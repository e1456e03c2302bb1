import { makeModulator } from '../automation/modulator';
import { applyEdit, applyPiecePatches } from '../piece/edit';
import { newSlot } from '../piece/edits/chain';
import { removeTrack } from '../piece/edits/channels';
import { duplicateTrack, moveTrack } from '../piece/edits/tracks';
import { pieceSchema, type Piece, type Slot } from '../piece/piece';
import { clipOf, echoSlot, laneOf, scene, soundOf, targetOf, type Scene } from '../piece/testing';
import { awayFrom, engineOf, runEngine } from './testing';

const noise = soundOf(2, (i) => 0.2 * Math.sin(i * i * 0.0007));
const braid: Slot = {
  ...newSlot('b', 'braid', 'neutral'),
  strands: [
    { place: 1, name: 'A', chain: [newSlot('u', 'utility', 'neutral', { gain: -4 })] },
    { place: 2, name: 'B', chain: [] },
  ],
};

/** A track with everything that can be of a track, and another. */
const made = (): Scene =>
  scene(
    [noise],
    [
      {
        clips: [clipOf('a', 0, 0.5, 1.5)],
        chain: [echoSlot('e', {}), braid],
        sends: [{ to: 'r', level: 0.5, pre: false }],
        pan: -0.3,
      },
      { clips: [] },
    ],
    {
      returns: [
        {
          id: 'r',
          name: 'R',
          gain: 1,
          pan: 0,
          mute: false,
          solo: false,
          sends: [],
          chain: [echoSlot('re', { mix: 1 })],
        },
      ],
      lanes: [
        laneOf('t0', 'e', 'feedback', [
          [0, 0.1],
          [3, 0.6],
        ]),
        laneOf('t0', null, 'gain', [
          [0, 0.2],
          [2, 1],
        ]),
      ],
      modulators: [makeModulator('lfo', { id: 'm', name: 'LFO', rate: 3 })],
      links: [
        { id: 'l1', modulator: 'm', target: targetOf('t0', 'u', 'gain'), depth: 0.3 },
        { id: 'l2', modulator: 'm', target: targetOf('t0', null, 'pan'), depth: 0.2 },
      ],
    },
  );

const heard = (of: Scene, piece: Piece): Float32Array => {
  const engine = engineOf({ ...of, piece });
  engine.play(0);
  return runEngine(engine, 2.5).left;
};

test('a duplicate of a track sounds as the track to the bit, and is one undo', () => {
  const of = made();
  const doubled = applyEdit(of.piece, duplicateTrack, { track: 't0', id: 'copy', called: 'Track 0 2' });
  pieceSchema.parse(doubled.piece);
  expect(doubled.piece.tracks.map(({ id, name }) => [id, name])).toEqual([
    ['t0', 'Track 0'],
    ['copy', 'Track 0 2'],
    ['t1', 'Track 1'],
  ]);
  const alone = applyEdit(doubled.piece, removeTrack, { track: 't0' }).piece;
  expect(awayFrom(heard(of, alone), heard(of, of.piece))).toBe(0);
  expect(applyPiecePatches(doubled.piece, doubled.backward)).toEqual(of.piece);
});

test('a track is moved to any place and sounds the same', () => {
  const of = made();
  const moved = applyEdit(of.piece, moveTrack, { track: 't0', to: 1 });
  expect(moved.piece.tracks.map(({ id }) => id)).toEqual(['t1', 't0']);
  expect(awayFrom(heard(of, moved.piece), heard(of, of.piece))).toBe(0);
  expect(applyEdit(moved.piece, moveTrack, { track: 't0', to: 99 }).piece.tracks.map(({ id }) => id)).toEqual([
    't1',
    't0',
  ]);
  expect(() => applyEdit(of.piece, moveTrack, { track: 'gone', to: 0 })).toThrow('no longer in the piece');
});
