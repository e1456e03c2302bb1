import type { SoundData } from '../../../core/dsp/soundData';
import { startPrint } from '../../../audio/printer';
import { compilePlan } from '../../../core/engine/compilePlan';
import { writeWav } from '../../../core/formats/writeWav';
import { beatsToSamples } from '../../../core/music/tempo';
import { layParts } from '../../../core/piece/edits/recipes';
import type { Clip, Piece, Track } from '../../../core/piece/piece';
import { emptyPiece } from '../../../core/piece/piece';
import { tempoOf } from '../../../core/piece/tempoOf';
import { swellClip, swellJob, takeHit, type HitSource, type SwellSettings } from '../../../core/recipes/reverseSwell';
import { plainTrack } from '../../../core/piece/plain';
import { uploadSound } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import type { Studio } from '../../studio/studio';
import { newId } from '../../../data/newId';
import { swellEditArgs, swellName, type MadeSwell } from '../../../core/recipes/recipeEdit';

interface Rendered {
  readonly hit: SoundData;
  readonly swell: SoundData;
}

/** The hit alone and the hit through the reverb, rendered in a worker while playing goes on. */
async function renderSwell(
  studio: Studio,
  piece: Piece,
  source: HitSource,
  settings: SwellSettings,
): Promise<Rendered> {
  const sound = studio.sounds.get(source.sound);
  if (!sound) throw new Error('The sound of that hit has not come yet. Try again in a moment.');
  const hit = takeHit(sound.channels, source, piece.sampleRate);
  const { job, sounds } = swellJob(piece, hit, source.beat, settings);
  const printed = await startPrint(job, sounds, () => undefined).result;
  if (!printed) throw new Error('The swell was stopped.');
  return { hit, swell: [printed.left, printed.right] };
}

const SWELL_SOUND = '1'.repeat(64);
const HIT_SOUND = '2'.repeat(64);

/** One swell and the hit it leads to, as they would be heard; null where the previous hit is too close. */
export async function hearSwell(
  studio: Studio,
  piece: Piece,
  source: HitSource,
  settings: SwellSettings,
): Promise<SoundData | null> {
  const { hit, swell } = await renderSwell(studio, piece, source, settings);
  const clip = swellClip(piece, source, swell, hit, settings, SWELL_SOUND, 'swell');
  if (!clip) return null;
  const { sampleRate } = piece;
  const struck: Clip = {
    ...clip,
    id: 'hit',
    sound: HIT_SOUND,
    start: source.beat,
    offsetSeconds: 0,
    lengthSeconds: hit[0]!.length / sampleRate,
    gain: 1,
    fadeInSeconds: 0,
    fadeOutSeconds: 0,
    reversed: false,
  };
  const info = (data: SoundData) => ({
    name: 'heard',
    frames: data[0]!.length,
    sampleRate,
    channels: data.length > 1 ? (2 as const) : (1 as const),
  });
  const alone: Piece = {
    ...emptyPiece('heard', 'Heard'),
    sampleRate,
    tempo: piece.tempo,
    lanes: piece.lanes.filter(({ target }) => target.kind === 'tempo'),
    sounds: { [SWELL_SOUND]: info(swell), [HIT_SOUND]: info(hit) },
    tracks: [plainTrack('heard', 'Heard', [clip, struck])],
  };
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), sampleRate);
  const job = {
    plan: compilePlan(alone),
    fromSample: at(clip.start),
    toSample: at(source.beat) + hit[0]!.length,
    tail: { kind: 'seconds' as const, seconds: 0 },
    listening: undefined,
  };
  const sounds = [
    { hash: SWELL_SOUND, channels: swell },
    { hash: HIT_SOUND, channels: hit },
  ];
  const heard = await startPrint(job, sounds, () => undefined).result;
  return heard && [heard.left, heard.right];
}

/**
 * Makes a swell into each hit, on a track of their own, as one edit. The piece is not changed before all are rendered.
 * @returns number of swells; hits too close to the previous one are skipped
 */
export async function makeSwells(
  studio: Studio,
  piece: Piece,
  track: Track,
  sources: readonly HitSource[],
  settings: SwellSettings,
  onProgress: (share: number) => void,
): Promise<number> {
  const made: MadeSwell[] = [];
  for (const [i, source] of sources.entries()) {
    onProgress(i / sources.length);
    const { hit, swell } = await renderSwell(studio, piece, source, settings);
    const bytes = writeWav({ sampleRate: piece.sampleRate, channels: [...swell] }, '32f');
    const name = swellName(track, i);
    const { hash, ...info } = await uploadSound(new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
    const clip = swellClip(piece, source, swell, hit, settings, hash, newId());
    if (clip) made.push({ clip: { ...clip, name }, info });
  }
  if (made.length > 0) useOpenPiece.getState().run(layParts, swellEditArgs(track, made, newId()));
  return made.length;
}
