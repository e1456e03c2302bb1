import { exportOrderSchema } from '../../../core/files/order';
import { emptyPiece, type Piece } from '../../../core/piece/piece';
import { canWrite, EXPORT_DEFAULTS, exportFormSchema, exportOrderOf, type ExportFormValues } from './exportOrder';

const print = (id: string): Piece['prints'][number] => ({ id, name: `Print ${id}` }) as Piece['prints'][number];
const track = { id: 't', name: 'T' } as Piece['tracks'][number];
const bare: Piece = { ...emptyPiece('p', 'Piece'), lengthBeats: 64 };
const full: Piece = { ...bare, tracks: [track], prints: [print('a'), print('b')] };
const range = { start: 8, end: 16 };
const orderOf = (change: Partial<ExportFormValues>, chosen: typeof range | null = null, piece = full) =>
  exportOrderOf(piece, chosen, { ...EXPORT_DEFAULTS, ...change });

test('the form begins with the whole mix as 24-bit WAV that rings out, which is a valid order', () => {
  expect(exportFormSchema.parse(EXPORT_DEFAULTS)).toEqual(EXPORT_DEFAULTS);
  const order = orderOf({});
  expect(order).toEqual({
    piece: 'p',
    what: 'mix',
    fromBeat: 0,
    toBeat: 64,
    tail: 'silent',
    format: 'wav24',
    lufs: null,
    prints: [],
  });
  expect(exportOrderSchema.parse(order)).toEqual(order);
});

test('the chosen stretch is the mix of it; tracks are of it too; the mix never is', () => {
  expect(orderOf({ what: 'stretch' }, range)).toMatchObject({ what: 'mix', fromBeat: 8, toBeat: 16 });
  expect(orderOf({ what: 'stems' }, range)).toMatchObject({ what: 'stems', fromBeat: 8, toBeat: 16 });
  expect(orderOf({ what: 'stems' })).toMatchObject({ what: 'stems', fromBeat: 0, toBeat: 64 });
  expect(orderOf({ what: 'mix' }, range)).toMatchObject({ what: 'mix', fromBeat: 0, toBeat: 64 });
});

test('prints are all but those left out, and none is no order', () => {
  expect(orderOf({ what: 'prints', omitted: ['a'] })).toMatchObject({ what: 'prints', prints: ['b'] });
  expect(orderOf({ what: 'mix', omitted: ['a'] })!.prints).toEqual([]);
  expect(orderOf({ what: 'prints', omitted: ['a', 'b'] })).toBeNull();
});

test.each([
  ['stretch', full],
  ['stems', bare],
  ['prints', bare],
] as const)('%s that cannot be written becomes the mix', (what, piece) => {
  expect(canWrite(what, piece, null)).toBe(false);
  expect(orderOf({ what }, null, piece)).toMatchObject({ what: 'mix', fromBeat: 0, toBeat: 64, prints: [] });
});

test('format, tail and loudness go into the order', () => {
  expect(orderOf({ format: 'flac16', tail: 'none', lufs: -14 })).toMatchObject({
    format: 'flac16',
    tail: 'none',
    lufs: -14,
  });
});
