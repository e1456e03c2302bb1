import { compilePlan } from '../engine/plan';
import type { PrintJob } from '../engine/print';
import type { Point } from '../moves/point';
import { beatsToSamples, placeSeconds } from '../music/tempo';
import { toEngineNumber } from '../params/resolve';
import { effectOf } from '../effects/catalogue';
import { newSlot } from '../piece/edits/chain';
import { contextOf } from '../piece/find';
import { emptyPiece, type Clip, type Piece, type Track } from '../piece/piece';
import { tempoLane, tempoOf } from '../piece/tempoOf';

export const BED_SPACES = ['hall', 'plate', 'cloud'] as const;

export interface BedSettings {
  /** How much of what comes before the stretch is taken into the space, in beats. */
  readonly takeBeats: number;
  readonly space: (typeof BED_SPACES)[number];
  readonly highCutHz: number;
  /** Sealed holds what was taken; open still takes in what the channel plays, so that it stacks up. */
  readonly freeze: 'sealed' | 'open';
  readonly fadeInBeats: number;
  readonly level: number;
}

interface Stretch {
  readonly start: number;
  readonly end: number;
}

/** The space is frozen so shortly before the stretch, so that it is frozen by its first sample. */
const FROZEN_BEFORE_BEATS = 0.1;
/** The next phrase cuts it off over this. */
const CUT_SECONDS = 0.03;
/** Its way in is rounded, so that what swells up never clicks. */
const LEAST_FADE_SECONDS = 0.01;
/** The peak it is brought to at a level of 1. */
const FULL = 0.5;

const takenFrom = (start: number, { takeBeats }: BedSettings): number => Math.max(0, start - takeBeats);

/** What has to be rendered for a bed: the clips of a track from a little before the stretch to its end, through a space that freezes where it begins. */
export function bedJob(piece: Piece, track: Track, stretch: Stretch, settings: BedSettings): PrintJob {
  const { params } = effectOf('reverb');
  const freeze = (value: string): number => toEngineNumber(params.freeze!, value, contextOf(piece));
  const at = (beat: number, value: string): Point => ({ beat, value: freeze(value), shape: 'hold', bend: 0 });
  const slot = newSlot('bed', 'reverb', 'neutral', { space: settings.space, decay: 8000, highCut: settings.highCutHz, balance: 'mix', mix: 1 });
  const tempo = tempoLane(piece);
  const from = takenFrom(stretch.start, settings);
  const alone: Piece = {
    ...emptyPiece('bed', 'Bed'), sampleRate: piece.sampleRate, tempo: piece.tempo, lengthBeats: piece.lengthBeats, sounds: piece.sounds,
    tracks: [{ ...track, gain: 1, pan: 0, mute: false, solo: false, sends: [], chain: [slot] }],
    lanes: [...(tempo ? [tempo] : []), { id: 'freeze', target: { channel: track.id, effect: 'bed', param: 'freeze' }, unit: 'own', on: true, points: [at(0, 'off'), at(Math.max(from, stretch.start - FROZEN_BEFORE_BEATS), settings.freeze)] }],
  };
  const sample = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  return { plan: compilePlan(alone), fromSample: sample(from), toSample: sample(stretch.end), tail: { kind: 'seconds', seconds: 0 }, listening: undefined };
}

/** The clip that lies over the stretch; what was taken before it can be brought in by trimming its start. Null where nothing sounded to be frozen. */
export function bedClip(piece: Piece, { start, end }: Stretch, rendered: readonly Float32Array[], settings: BedSettings, sound: string, id: string, name: string): Clip | null {
  const tempo = tempoOf(piece);
  const seconds = (from: number, to: number): number => placeSeconds(to, tempo) - placeSeconds(from, tempo);
  const offset = beatsToSamples(start, tempo, piece.sampleRate) - beatsToSamples(takenFrom(start, settings), tempo, piece.sampleRate);
  let peak = 0;
  for (const channel of rendered) for (let i = offset; i < channel.length; i += 1) peak = Math.max(peak, Math.abs(channel[i]!));
  if (peak < 1e-4) return null;
  const lengthSeconds = Math.min(seconds(start, end), ((rendered[0]?.length ?? 0) - offset) / piece.sampleRate);
  const fadeOutSeconds = Math.min(CUT_SECONDS, lengthSeconds / 4);
  return {
    id, name, sound, start, offsetSeconds: offset / piece.sampleRate, lengthSeconds, gain: Math.min(8, (FULL * settings.level) / peak),
    fadeInSeconds: Math.min(lengthSeconds - fadeOutSeconds, Math.max(LEAST_FADE_SECONDS, seconds(start, start + settings.fadeInBeats))), fadeInShape: 'soft', fadeOutSeconds, fadeOutShape: 'soft', print: null,
  };
}
