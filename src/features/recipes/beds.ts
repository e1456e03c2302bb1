import { startPrint } from '../../audio/printer';
import { writeWav } from '../../core/formats/writeWav';
import { layRecipe } from '../../core/piece/edits/recipes';
import type { Piece, Track } from '../../core/piece/piece';
import { bedClip, bedJob, type BedSettings } from '../../core/recipes/bed';
import { uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import type { Studio } from '../studio/studio';
import { freeName } from './freeName';
import { trackOf } from './trackOf';

interface Range {
  readonly start: number;
  readonly end: number;
}

/** What the space holds, rendered in a worker while playing goes on. */
async function renderBed(studio: Studio, piece: Piece, track: Track, range: Range, settings: BedSettings): Promise<Float32Array[]> {
  const sounds = [...new Set(track.clips.map(({ sound }) => sound))].flatMap((hash) => studio.sounds.get(hash) ?? []);
  const printed = await startPrint(bedJob(piece, track, range, settings), sounds, () => undefined).result;
  if (!printed) throw new Error('The bed was stopped.');
  return [printed.left, printed.right];
}

/** The bed as it would be heard, without its fades; null where there was nothing to freeze. */
export async function hearBed(studio: Studio, piece: Piece, track: Track, range: Range, settings: BedSettings): Promise<Float32Array[] | null> {
  const channels = await renderBed(studio, piece, track, range, settings);
  const clip = bedClip(piece, range, channels, settings, '', 'heard', 'Heard');
  if (!clip) return null;
  const from = Math.round(clip.offsetSeconds * piece.sampleRate);
  return channels.map((channel) => channel.slice(from).map((x) => x * clip.gain));
}

/** Makes it part of the piece, as one edit. @returns its name; null where there was nothing to freeze */
export async function makeBed(studio: Studio, piece: Piece, track: Track, range: Range, settings: BedSettings): Promise<string | null> {
  const channels = await renderBed(studio, piece, track, range, settings);
  const name = freeName(piece, `Bed of ${track.name}`);
  if (!bedClip(piece, range, channels, settings, '', 'heard', name)) return null;
  const bytes = writeWav({ sampleRate: piece.sampleRate, channels }, '32f');
  const { hash, ...sound } = await uploadSound(new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
  const clip = bedClip(piece, range, channels, settings, hash, crypto.randomUUID(), name)!;
  useOpenPiece.getState().run(layRecipe, { what: 'Make a bed', track: trackOf(crypto.randomUUID(), name, [clip]), lanes: [], sounds: { [hash]: sound } });
  return name;
}
