import { beatsFrom, beatsToSamples } from '../music/tempo';
import type { Clip, Piece } from './piece';
import { tempoOf } from './tempoOf';

/** Minimum length of a clip. */
export const MIN_CLIP_SECONDS = 0.005;
/** Fade of a clip that begins or ends in the middle of its sound, so that it never clicks. */
export const EDGE_FADE_SECONDS = 0.002;
/** Tolerance within which the sound of one clip continues that of another. */
const MEET_SECONDS = 1e-6;

export const soundSeconds = (piece: Pick<Piece, 'sounds'>, clip: Pick<Clip, 'sound'>): number => {
  const sound = piece.sounds[clip.sound];
  return sound ? sound.frames / sound.sampleRate : 0;
};

export const clipEnd = (piece: Piece, clip: Pick<Clip, 'start' | 'lengthSeconds'>): number =>
  clip.start + beatsFrom(clip.start, clip.lengthSeconds, tempoOf(piece));

/** Whether a clip begins where another ends and continues its sound, so that the two are heard as one. */
function goesOn(piece: Piece, clip: Clip, next: Clip): boolean {
  if (
    next.sound !== clip.sound ||
    next.id === clip.id ||
    next.mute ||
    clip.mute ||
    (next.reversed ?? false) !== (clip.reversed ?? false) ||
    next.gain !== clip.gain
  )
    return false;
  const apart = clip.reversed
    ? clip.offsetSeconds - (next.offsetSeconds + next.lengthSeconds)
    : next.offsetSeconds - (clip.offsetSeconds + clip.lengthSeconds);
  if (Math.abs(apart) > MEET_SECONDS) return false;
  const tempo = tempoOf(piece);
  const end = beatsToSamples(clip.start, tempo, piece.sampleRate) + Math.round(clip.lengthSeconds * piece.sampleRate);
  return Math.abs(beatsToSamples(next.start, tempo, piece.sampleRate) - end) <= 1;
}

export const continuation = (piece: Piece, clips: readonly Clip[], clip: Clip): Clip | undefined =>
  clips.find((next) => goesOn(piece, clip, next));

/**
 * The effective fades of a clip: its own, and a minimum where it was cut out of the middle of its sound and no other
 * clip continues it.
 */
export function heardFades(
  piece: Piece,
  clips: readonly Clip[],
  clip: Clip,
): { readonly inSeconds: number; readonly outSeconds: number } {
  const begins = clip.offsetSeconds > MEET_SECONDS;
  const ends = clip.offsetSeconds + clip.lengthSeconds < soundSeconds(piece, clip) - MEET_SECONDS;
  const [cutIn, cutOut] = clip.reversed ? [ends, begins] : [begins, ends];
  const bareIn = cutIn && clip.fadeInSeconds < EDGE_FADE_SECONDS && !clips.some((other) => goesOn(piece, other, clip));
  const bareOut =
    cutOut && clip.fadeOutSeconds < EDGE_FADE_SECONDS && !clips.some((other) => goesOn(piece, clip, other));
  return {
    inSeconds: bareIn ? EDGE_FADE_SECONDS : clip.fadeInSeconds,
    outSeconds: bareOut ? EDGE_FADE_SECONDS : clip.fadeOutSeconds,
  };
}
