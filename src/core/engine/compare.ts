import { beatsToSamples } from '../music/tempo';
import { newSlot } from '../piece/edits/chain';
import { findTrack } from '../piece/find';
import { tempoOf } from '../piece/tempoOf';
import { MAIN, type Piece, type Slot } from '../piece/piece';
import { compilePlan } from './compilePlan';
import type { Plan } from './plan';

/** Enough for its loudness to be told, short enough to be told soon. */
const STRETCH_SECONDS = 10;

/** A piece with another chain on one channel, and its level changed by so many dB. */
export function withChain(piece: Piece, channel: string, chain: readonly Slot[], gainDb = 0): Piece {
  const heard =
    gainDb === 0 ? [...chain] : [...chain, newSlot('compared-level', 'utility', 'neutral', { gain: gainDb })];
  if (channel === MAIN) return { ...piece, main: { ...piece.main, chain: heard } };
  const put = <T extends { id: string; chain: Slot[] }>(one: T): T =>
    one.id === channel ? { ...one, chain: heard } : one;
  return { ...piece, tracks: piece.tracks.map(put), returns: piece.returns.map(put) };
}

export interface CompareJob {
  readonly plan: Plan;
  readonly fromSample: number;
  readonly toSample: number;
}

/**
 * What is rendered to compare a chain on a channel: the track by itself, or the whole piece for a return or the main
 * output; the loop, else ten seconds from the first sound.
 */
export function compareJob(piece: Piece, channel: string, chain: readonly Slot[]): CompareJob {
  const track = findTrack(piece, channel);
  const clips = (track ? [track] : piece.tracks).flatMap((one) => one.clips);
  const first = clips.reduce((least, clip) => Math.min(least, clip.start), Infinity);
  const from = piece.loop.on ? piece.loop.start : Number.isFinite(first) ? first : 0;
  const tempo = tempoOf(piece);
  const fromSample = beatsToSamples(from, tempo, piece.sampleRate);
  const toSample = piece.loop.on
    ? beatsToSamples(piece.loop.end, tempo, piece.sampleRate)
    : fromSample + STRETCH_SECONDS * piece.sampleRate;
  const changed = withChain(piece, channel, chain);
  return {
    plan: compilePlan(changed, track ? { channel, clip: null, fromSample, toSample } : null),
    fromSample,
    toSample,
  };
}

/** Gains that make all as loud as the least loud, in dB; nothing is ever made louder. @param lufs null for silence */
export function matchingGains(lufs: readonly (number | null)[]): number[] {
  const least = lufs.reduce<number>((low, level) => (level === null ? low : Math.min(low, level)), Infinity);
  return lufs.map((level) => (level === null ? 0 : Math.max(-60, least - level)));
}
