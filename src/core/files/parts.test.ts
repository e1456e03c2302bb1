import * as fc from 'fast-check';
import { emptyPiece, newTrack, type Piece } from '../piece/piece';
import type { ExportOrder } from './order';
import { exportNames, fileName } from './parts';

const piece: Piece = {
  ...emptyPiece('p', 'Ebbe & Flut: "Nacht" / Ночь 夜'),
  tracks: [newTrack('a', 'Stimme (leise)'), newTrack('b', '…')],
};
const ORDER: ExportOrder = {
  piece: 'p',
  what: 'stems',
  fromBeat: 0,
  toBeat: piece.lengthBeats,
  tail: 'none',
  format: 'wav24',
  lufs: null,
  prints: [],
};

test('files are named piece, part, place and date, with the characters that a person chose', () => {
  expect(exportNames(piece, ORDER, '2026-05-01')).toEqual([
    'Ebbe & Flut Nacht Ночь 夜 - 01 Stimme (leise) - 2026-05-01',
    'Ebbe & Flut Nacht Ночь 夜 - 02 … - 2026-05-01',
  ]);
  expect(exportNames(piece, { ...ORDER, what: 'mix', fromBeat: 8, toBeat: 13 }, '2026-05-01')).toEqual([
    'Ebbe & Flut Nacht Ночь 夜 - mix - bars 3 to 4.25 - 2026-05-01',
  ]);
});

test('no name holds what a disk does not take, none is empty, none goes up a folder', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (name) => {
      const safe = fileName(name);
      expect(safe).not.toMatch(/[/\\:*?"<>|\u0000-\u001f\u0080-\u009f]/);
      expect(safe.length).toBeGreaterThan(0);
      expect(safe.length).toBeLessThanOrEqual(80);
      expect(['.', '..', 'CON', 'nul', 'com1']).not.toContain(safe);
    }),
    { examples: [['..'], ['CON'], ['a/../../b'], ['   '], ['\u0000']] },
  );
});
