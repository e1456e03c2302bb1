import type { ExportOrder } from '../../../core/files/order';
import { emptyPiece } from '../../../core/piece/piece';
import { exportTitle } from './exportText';

const piece = { ...emptyPiece('p', 'Piece'), lengthBeats: 64 };
const order = (change: Partial<ExportOrder>): ExportOrder =>
  ({ what: 'mix', format: 'wav24', lufs: null, fromBeat: 0, toBeat: 64, ...change }) as ExportOrder;

test.each([
  [{}, 'The mix · the whole piece · 24-bit WAV'],
  [{ fromBeat: 8, toBeat: 16, lufs: -14 }, 'The mix · bars 3 to 5 · 24-bit WAV · −14 LUFS'],
  [
    { what: 'stems', format: 'flac16', lufs: -9.5 },
    'A file for each track · the whole piece · 16-bit FLAC · −9.5 LUFS',
  ],
  [{ what: 'prints', format: 'wav16', fromBeat: 8 }, 'Prints · 16-bit WAV, dithered'],
] as const)('%j is "%s"', (change, title) =>
  expect(exportTitle(piece, order(change as Partial<ExportOrder>))).toBe(title),
);
