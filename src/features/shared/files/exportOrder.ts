import * as z from 'zod';
import { EXPORT_FORMATS, exportOrderSchema, type ExportOrder } from '../../../core/files/order';
import type { Piece } from '../../../core/piece/piece';

/** What is chosen in the form of an export. */
export const exportFormSchema = z.object({
  what: z.enum(['mix', 'stretch', 'stems', 'prints']),
  format: z.enum(EXPORT_FORMATS),
  tail: exportOrderSchema.shape.tail,
  lufs: exportOrderSchema.shape.lufs,
  /** Ids of prints. */
  omitted: z.array(z.string()),
});
export type ExportFormValues = z.infer<typeof exportFormSchema>;

export const EXPORT_DEFAULTS: ExportFormValues = {
  what: 'mix',
  format: 'wav24',
  tail: 'silent',
  lufs: null,
  omitted: [],
};

interface BeatRange {
  readonly start: number;
  readonly end: number;
}

/** What of a piece can be written at present: a stretch only where one is chosen. */
export const canWrite = (what: ExportFormValues['what'], piece: Piece, range: BeatRange | null): boolean => {
  switch (what) {
    case 'mix':
      return true;
    case 'stretch':
      return range !== null;
    case 'stems':
      return piece.tracks.length > 0;
    case 'prints':
      return piece.prints.length > 0;
  }
};

/** The order for what is chosen; null where there is nothing to write. What can no longer be written becomes the mix. */
export function exportOrderOf(piece: Piece, range: BeatRange | null, values: ExportFormValues): ExportOrder | null {
  const what = canWrite(values.what, piece, range) ? values.what : 'mix';
  const part = (what === 'stretch' || what === 'stems') && range ? range : { start: 0, end: piece.lengthBeats };
  const prints = piece.prints.map(({ id }) => id).filter((id) => !values.omitted.includes(id));
  if (what === 'prints' && prints.length === 0) return null;
  return {
    piece: piece.id,
    what: what === 'stretch' ? 'mix' : what,
    fromBeat: part.start,
    toBeat: part.end,
    tail: values.tail,
    format: values.format,
    lufs: values.lufs,
    prints: what === 'prints' ? prints : [],
  };
}
