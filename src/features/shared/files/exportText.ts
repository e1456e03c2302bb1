import type { ExportFormat, ExportOrder, ExportStatus } from '../../../core/files/order';
import { barsText } from '../../../core/music/grid';
import type { Piece } from '../../../core/piece/piece';
import { tempoOf } from '../../../core/piece/tempoOf';

export const FORMAT_NAMES: Readonly<Record<ExportFormat, string>> = {
  wav16: '16-bit WAV, dithered',
  wav24: '24-bit WAV',
  wav32f: '32-bit float WAV',
  flac16: '16-bit FLAC',
  flac24: '24-bit FLAC',
};

const WHAT = { mix: 'The mix', stems: 'A file for each track', prints: 'Prints' } as const;

function placeText(piece: Piece, { fromBeat, toBeat, what }: ExportOrder): string {
  if (what === 'prints') return '';
  if (fromBeat === 0 && toBeat === piece.lengthBeats) return 'the whole piece';
  return barsText(fromBeat, toBeat, tempoOf(piece));
}

/** What an export holds: "The mix · bars 3 to 5 · 24-bit WAV · −14 LUFS". */
export function exportTitle(piece: Piece, order: ExportOrder): string {
  const { what, format, lufs } = order;
  const loudness = lufs === null ? '' : `${String(lufs).replace('-', '\u2212')} LUFS`;
  return [WHAT[what], placeText(piece, order), FORMAT_NAMES[format], loudness].filter(Boolean).join(' · ');
}

/** When it was begun, as the browser's language writes it. */
export const exportTime = ({ madeAt }: ExportStatus): string =>
  new Date(madeAt).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
