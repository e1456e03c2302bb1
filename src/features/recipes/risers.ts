import { startPrint } from '../../audio/printer';
import { compilePlan } from '../../core/engine/plan';
import { writeWav } from '../../core/formats/writeWav';
import { beatsToSamples } from '../../core/music/tempo';
import { layRecipe } from '../../core/piece/edits/recipes';
import { emptyPiece, MAIN, type Piece } from '../../core/piece/piece';
import { tempoOf } from '../../core/piece/tempoOf';
import { riserSound, riserTrack, type RiserSettings } from '../../core/recipes/riser';
import { uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { freeName } from './freeName';

interface Range {
  readonly start: number;
  readonly end: number;
}

const HEARD = '3'.repeat(64);
/** A space may ring on for so long when it is only tried. */
const TAIL_SECONDS = 2;

/** The riser as it would be heard alone, rendered in a worker. */
export async function hearRiser(piece: Piece, range: Range, settings: RiserSettings): Promise<Float32Array[]> {
  const channels = riserSound(piece, range, settings);
  const { track, lanes } = riserTrack(piece, range, settings, HEARD, 'Heard', { track: 'heard', parts: 'heard' });
  const tempo = piece.lanes.filter(({ target }) => target.channel === MAIN && target.param === 'tempo');
  const alone: Piece = { ...emptyPiece('heard', 'Heard'), sampleRate: piece.sampleRate, tempo: piece.tempo, lengthBeats: piece.lengthBeats, lanes: [...tempo, ...lanes], tracks: [track], sounds: { [HEARD]: { name: 'heard', frames: channels[0]!.length, sampleRate: piece.sampleRate, channels: 2 } } };
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  const job = { plan: compilePlan(alone), fromSample: at(range.start), toSample: at(range.end), tail: { kind: 'seconds' as const, seconds: settings.space ? TAIL_SECONDS : 0 }, listening: undefined };
  const made = await startPrint(job, [{ hash: HEARD, channels }], () => undefined).result;
  if (!made) throw new Error('The riser was stopped.');
  return [made.left, made.right];
}

/** Makes it part of the piece, as one edit. @returns its name */
export async function makeRiser(piece: Piece, range: Range, settings: RiserSettings): Promise<string> {
  const name = freeName(piece, settings.way === 'rise' ? 'Riser' : 'Fall');
  const bytes = writeWav({ sampleRate: piece.sampleRate, channels: riserSound(piece, range, settings) }, '32f');
  const { hash, ...sound } = await uploadSound(new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
  const { track, lanes } = riserTrack(piece, range, settings, hash, name, { track: crypto.randomUUID(), parts: crypto.randomUUID() });
  useOpenPiece.getState().run(layRecipe, { what: settings.way === 'rise' ? 'Make a riser' : 'Make a fall', track, lanes: [...lanes], sounds: { [hash]: sound } });
  return name;
}
