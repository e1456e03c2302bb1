import type { SoundData } from '../dsp/soundData';
import { compilePlan } from '../engine/compilePlan';
import type { PrintJob } from '../engine/print';
import { TREATED_SOUND, treatmentPiece } from '../engine/treatment';
import type { Hit } from '../piece/moves/throws';
import { beatsToSamples, placeSeconds, samplesToBeats } from '../music/tempo';
import { choice, frequency, gain, toggle } from '../params/make';
import type { ParamValues } from '../params/param';
import { clipEnd } from '../piece/clipEdges';
import { newSlot } from '../piece/edits/chain';
import type { Clip, Piece, Track } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import { settingsOf } from './recipe';
import { barsLater } from '../music/grid';

const SWELL_SPACES = ['room', 'hall', 'plate', 'cloud'] as const;

/** Settings of a swell; unlike recipes, it is made for picked hits, not for a range. */
export const SWELL = {
  id: 'swell',
  name: 'Reverse swells',
  purpose: 'What a space answers to a hit, played backwards, so that it grows into the hit.',
  params: {
    length: choice({
      label: 'Length',
      group: 'Swell',
      hint: 'How long before the hit it begins; less where the hit before is nearer.',
      initial: 'bar',
      options: [
        { id: 'beat', label: '1 beat' },
        { id: 'beats', label: '2 beats' },
        { id: 'bar', label: '1 bar' },
        { id: 'bars', label: '2 bars' },
      ],
    }),
    clear: toggle({
      label: 'Clear of every hit',
      group: 'Swell',
      hint: 'On, it keeps clear of hits between; off, it goes on over those that have no swell of their own.',
      initial: false,
    }),
    space: choice({
      label: 'Space',
      group: 'Swell',
      hint: 'What answers the hit.',
      initial: 'hall',
      options: SWELL_SPACES.map((id) => ({ id, label: id })),
    }),
    highCut: frequency({
      label: 'High cut',
      group: 'Swell',
      hint: 'Darker swells stay behind the hit.',
      min: 800,
      max: 20_000,
      initial: 9000,
    }),
    level: gain({ label: 'Level', group: 'Swell', hint: 'Its highest point, against the hit.', initial: 0.7 }),
  },
} as const;

export interface SwellSettings {
  /** How long before the hit it begins; less where the hit before is nearer. */
  readonly length: { readonly beats: number } | { readonly bars: number };
  readonly space: (typeof SWELL_SPACES)[number];
  /** Highest frequency of the space. */
  readonly highCutHz: number;
  /** Its peak relative to the hit's, as a gain. */
  readonly level: number;
}

const LENGTHS: Readonly<Record<string, SwellSettings['length']>> = {
  beat: { beats: 1 },
  beats: { beats: 2 },
  bar: { bars: 1 },
  bars: { bars: 2 },
};

export function swellSettings(values: ParamValues, piece: Piece): SwellSettings {
  const { number, word } = settingsOf(SWELL, values, piece);
  return {
    length: LENGTHS[word('length')] ?? { bars: 1 },
    space: SWELL_SPACES.find((id) => id === word('space')) ?? 'hall',
    highCutHz: number('highCut'),
    level: number('level'),
  };
}

/** A hit within its source. */
export interface HitSource {
  readonly beat: number;
  readonly sound: string;
  readonly fromSeconds: number;
  readonly takeSeconds: number;
  /** Earliest beginning of the swell: after the previous hit. */
  readonly clearBeat: number;
}

/** Seconds of a hit that feed the reverb. */
const MAX_TAKEN_SECONDS = 0.4;
/** Seconds after the previous hit without a swell. */
const CLEAR_SECONDS = 0.05;
/** Seconds kept after the peak: its whole window, then the end of the swell. */
const PAST_PEAK_SECONDS = 0.008;
const END_FADE_SECONDS = 0.0035;
/** Window over which energy is measured. */
const WINDOW_SECONDS = 0.003;
/** Grid of the beginnings. */
const GRID_BEATS = 0.25;
/** Minimum length: a shorter swell would be a click before the hit. */
const MIN_SECONDS = 0.08;

/**
 * Where each hit comes from; hits of clips that are gone are left out.
 * @param hits of the track, in order  @param chosen indexes among them
 * @param clearOf whether a swell may overlap hits without a swell of their own, or must avoid every hit
 */
export function hitSources(
  piece: Piece,
  track: Track,
  hits: readonly Hit[],
  chosen: readonly number[],
  clearOf: 'chosen' | 'every',
): HitSource[] {
  const tempo = tempoOf(piece);
  const seconds = (beat: number): number => placeSeconds(beat, tempo);
  const order = [...chosen].sort((a, b) => a - b);
  return order.flatMap((i, k) => {
    const { beat } = hits[i]!;
    const clip = track.clips.find(
      (one) => !one.mute && !one.reversed && one.start <= beat + 1e-6 && clipEnd(piece, one) > beat,
    );
    if (!clip) return [];
    const fromSeconds = clip.offsetSeconds + Math.max(0, seconds(beat) - seconds(clip.start));
    const next = hits[i + 1] ? seconds(hits[i + 1]!.beat) - seconds(beat) : Infinity;
    const takeSeconds = Math.min(MAX_TAKEN_SECONDS, next, clip.offsetSeconds + clip.lengthSeconds - fromSeconds);
    const before = hits[clearOf === 'every' ? i - 1 : (order[k - 1] ?? -1)];
    const clearBeat = before
      ? samplesToBeats(
          beatsToSamples(before.beat, tempo, piece.sampleRate) + Math.ceil(CLEAR_SECONDS * piece.sampleRate),
          tempo,
          piece.sampleRate,
        )
      : 0;
    return [{ beat, sound: clip.sound, fromSeconds, takeSeconds, clearBeat }];
  });
}

/** The hit alone, its end faded out. */
export function takeHit(
  sound: SoundData,
  { fromSeconds, takeSeconds }: Pick<HitSource, 'fromSeconds' | 'takeSeconds'>,
  sampleRate: number,
): SoundData {
  const from = Math.round(fromSeconds * sampleRate);
  const length = Math.max(1, Math.min(Math.round(takeSeconds * sampleRate), (sound[0]?.length ?? 0) - from));
  const fade = Math.ceil(length / 5);
  return sound.map((channel) =>
    Float32Array.from({ length }, (_, i) => channel[from + i]! * Math.min(1, (length - i) / fade)),
  );
}

/** Where the swell into a hit begins, by the metre that is there. */
function beginOf(piece: Piece, beat: number, length: SwellSettings['length']): number {
  const wanted = 'beats' in length ? beat - length.beats : barsLater(beat, -length.bars, tempoOf(piece));
  return Math.max(0, wanted);
}

const swellSeconds = (piece: Piece, beat: number, length: SwellSettings['length']): number =>
  placeSeconds(beat, tempoOf(piece)) - placeSeconds(beginOf(piece, beat, length), tempoOf(piece));

/** The render of a swell: the hit through the reverb, wet only. */
export function swellJob(
  piece: Piece,
  hit: SoundData,
  beat: number,
  settings: SwellSettings,
): {
  readonly job: PrintJob;
  readonly sounds: readonly { readonly hash: string; readonly channels: readonly Float32Array[] }[];
} {
  const seconds = swellSeconds(piece, beat, settings.length);
  const { sampleRate } = piece;
  const chain = [
    newSlot('swell', 'reverb', 'neutral', {
      space: settings.space,
      decay: Math.min(60_000, Math.max(300, seconds * 1400)),
      highCut: settings.highCutHz,
      preDelay: 12,
      balance: 'mix',
      mix: 1,
    }),
  ];
  const alone = treatmentPiece({
    sound: hit,
    sampleRate,
    bpm: piece.tempo.bpm,
    chain,
    tail: { kind: 'silent' },
    hear: 'mix',
  });
  const job: PrintJob = {
    plan: compilePlan(alone),
    fromSample: 0,
    toSample: hit[0]!.length,
    tail: { kind: 'seconds', seconds: seconds + 0.5 },
    listening: undefined,
  };
  return { job, sounds: [{ hash: TREATED_SOUND, channels: [...hit] }] };
}

/** Frame about which the energy of a window is highest. */
export function peakFrame(channels: SoundData, sampleRate: number): number {
  const half = Math.round((WINDOW_SECONDS * sampleRate) / 2);
  const length = channels[0]?.length ?? 0;
  // With silence on both sides, so that the window may reach beyond the ends.
  const power = new Float64Array(length + 2 * half + 1);
  for (const channel of channels)
    for (let i = 0; i < length; i += 1) power[i + half + 1] = power[i + half + 1]! + channel[i]! * channel[i]!;
  let energy = 0;
  for (let i = 0; i < 2 * half + 1; i += 1) energy += power[i]!;
  let best = 0;
  let most = -1;
  for (let i = 0; i < length; i += 1) {
    energy += (power[i + 2 * half + 1] ?? 0) - power[i]!;
    if (energy > most) {
      most = energy;
      best = i;
    }
  }
  return best;
}

function highest(channels: SoundData, from: number, to: number): number {
  let top = 0;
  for (const channel of channels)
    for (let i = from; i < to && i < channel.length; i += 1) top = Math.max(top, Math.abs(channel[i]!));
  return top;
}

/**
 * The clip that plays what was rendered backwards, its peak on the hit, from a line of the grid on; null where the hit
 * before leaves it no room.
 * @param rendered the hit through the space, whole, as it is stored under `sound`
 * @param hit the hit alone
 */
export function swellClip(
  piece: Piece,
  source: HitSource,
  rendered: SoundData,
  hit: SoundData,
  settings: SwellSettings,
  sound: string,
  id: string,
): Clip | null {
  const { sampleRate } = piece;
  const tempo = tempoOf(piece);
  const peak = peakFrame(rendered, sampleRate);
  const past = Math.min(peak, Math.round(PAST_PEAK_SECONDS * sampleRate));
  const end = beatsToSamples(source.beat, tempo, sampleRate) + past;
  const wanted = Math.max(source.clearBeat, beginOf(piece, source.beat, settings.length));
  const start = Math.ceil(wanted / GRID_BEATS - 1e-9) * GRID_BEATS;
  const length = Math.min(end - beatsToSamples(start, tempo, sampleRate), rendered[0]!.length - (peak - past));
  if (length < MIN_SECONDS * sampleRate) return null;
  const used = highest(rendered, peak - past, peak - past + length);
  return {
    id,
    name: 'Swell',
    sound,
    start: samplesToBeats(end - length, tempo, sampleRate),
    offsetSeconds: (peak - past) / sampleRate,
    lengthSeconds: length / sampleRate,
    reversed: true,
    gain: used > 0 ? Math.min(8, (settings.level * highest(hit, 0, hit[0]!.length)) / used) : 1,
    fadeInSeconds: (0.3 * length) / sampleRate,
    fadeInShape: 'soft',
    fadeOutSeconds: END_FADE_SECONDS,
    fadeOutShape: 'soft',
    print: null,
  };
}
