import * as fc from 'fast-check';
import { emptyPiece, newTrack, type Piece } from '../piece/piece';
import { archiveName, fileName } from './names';
import type { ExportOrder } from './order';
import { exportNames } from './parts';

const piece: Piece = {
  ...emptyPiece('p', 'Ebbe & Flut: "Nacht" / Ночь 夜'),
  tracks: [newTrack('a', 'Stimme (leise)'), newTrack('b', '…')],
};
const bytesOf = (text: string): number => new TextEncoder().encode(text).length;
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
    fc.property(
      fc.string({ unit: 'binary', maxLength: 200 }).map((name) => name.toWellFormed()),
      (name) => {
        const safe = fileName(name);
        expect(safe).not.toMatch(/[/\\:*?"<>|\u0000-\u001f\u0080-\u009f]/);
        expect(safe.length).toBeGreaterThan(0);
        expect(bytesOf(safe)).toBeLessThanOrEqual(80);
        expect(safe).toBe(safe.toWellFormed());
        expect(safe).not.toMatch(/[. ]$/);
        expect(['.', '..', 'CON', 'nul', 'com1']).not.toContain(safe);
      },
    ),
    { examples: [['..'], ['CON'], ['a/../../b'], ['   '], ['\u0000']] },
  );
});

test('no whole name is longer than a disk takes, and long ones still say which part they are', () => {
  const long: Piece = { ...piece, name: '夜'.repeat(120), tracks: [newTrack('a', '🌊'.repeat(60))] };
  const [name] = exportNames(long, { ...ORDER, fromBeat: 1.37, toBeat: 9999.13 }, '2026-05-01');
  expect(bytesOf(`${name} (99).flac`)).toBeLessThan(255);
  expect(name).toMatch(/^夜+ - 01 🌊+ - bars 1\.34 to 2500\.78 - 2026-05-01$/u);
});

test('an archive is named by what its files have in common', () => {
  const stems = exportNames({ ...piece, name: 'Tide - early' }, { ...ORDER, fromBeat: 8, toBeat: 13 }, '2026-05-01');
  expect(archiveName(stems, 'stems')).toBe('Tide - early - stems - bars 3 to 4.25 - 2026-05-01');
  expect(archiveName(['Tide - Hum - wet - 2026-05-01', 'Tide - Hum - 2026-05-01'], 'prints')).toBe(
    'Tide - Hum - prints - 2026-05-01',
  );
  expect(archiveName(['Tide - mix - 2026-05-01'], 'mix')).toBe('Tide - mix - 2026-05-01');
  expect(archiveName(['a', 'b'], 'stems')).toBe('stems');
});
