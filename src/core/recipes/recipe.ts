import type { SoundData } from '../dsp/soundData';
import type { PrintJob } from '../engine/print';
import type { Hit } from '../piece/moves/throws';
import type { Point } from '../automation/point';
import { beatsToSamples, placeSeconds, samplesToBeats } from '../music/tempo';
import type { Params, ParamValues } from '../params/param';
import { resolveNumber } from '../params/resolve';
import { copyOf } from '../piece/edits/chain';
import { contextOf } from '../piece/find';
import { clipEnd } from '../piece/clipEdges';
import type { Modulator } from '../automation/modulator';
import type { Clip, Lane, Link, Piece, Slot, Track } from '../piece/piece';
import { plainTrack } from '../piece/plain';
import { tempoOf } from '../piece/tempoOf';

/** A range of the piece, in beats. */
export interface BeatRange {
  readonly start: number;
  readonly end: number;
}

/** Input of a recipe: a range of a track, with the onsets in it. */
export interface RecipeInput {
  readonly piece: Piece;
  readonly track: Track;
  readonly range: BeatRange;
  readonly hits: readonly Hit[];
  /** Samples of a sound at the piece's rate, once they are loaded. */
  readonly sound: (hash: string) => SoundData | undefined;
  readonly newId: () => string;
}

/** A render that a recipe needs first, with sounds that are not the piece's. */
export interface RecipeRenderJob {
  readonly job: PrintJob;
  readonly sounds: readonly { readonly hash: string; readonly channels: SoundData }[];
}

/** A sound that a recipe made. */
export interface RecipeSound {
  readonly channels: SoundData;
  /** First and last frame of its seamless loop. */
  readonly loop?: { readonly first: number; readonly last: number };
}

/** What a recipe leaves in the piece: ordinary tracks, clips, effects and moves. */
export interface RecipeResult {
  readonly tracks?: readonly Track[];
  /** Tracks whose clips are replaced. */
  readonly clips?: readonly { readonly track: string; readonly clips: readonly Clip[] }[];
  readonly slots?: readonly { readonly channel: string; readonly slot: Slot }[];
  readonly lanes?: readonly Lane[];
  readonly modulators?: readonly Modulator[];
  readonly links?: readonly Link[];
}

export interface Settings {
  number(id: string): number;
  word(id: string): string;
  is(id: string): boolean;
  /** As it was set: a number or a note value. */
  rate(id: string): number | string;
}

export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  /** Words of the trade by which it is looked for, beside those of its name and purpose. */
  readonly searchWords: string;
  readonly params: Params;
  /** Reason for the person why it cannot be made of this input; null when it can. */
  unavailableReason(input: RecipeInput): string | null;
  /**
   * The render it needs first; none when left out or null.
   * @throws Error for the person to read, where there is nothing to make it of
   */
  renderJob?(input: RecipeInput, settings: Settings): RecipeRenderJob | null;
  /** Description of the position that it leads to; null where there is none. */
  goal?(input: RecipeInput): string | null;
  /** True when it needs the track's onsets. */
  readonly ofHits?: true;
  /**
   * The sound it adds, made from the render or by synthesis.
   * @throws Error for the person to read, where nothing sounded
   */
  sound?(input: RecipeInput, settings: Settings, rendered: SoundData | null): RecipeSound;
  /** @param sound hash of the sound that was made, and its length in seconds */
  apply(
    input: RecipeInput,
    settings: Settings,
    sound: { readonly hash: string; readonly seconds: number } | null,
  ): RecipeResult;
}

export function settingsOf({ params }: Pick<Recipe, 'params'>, values: ParamValues, piece: Piece): Settings {
  const context = contextOf(piece);
  return {
    number: (id) => {
      const param = params[id];
      return param?.kind === 'number' ? resolveNumber(param, values[id] ?? param.initial, context) : 0;
    },
    word: (id) => String(values[id] ?? params[id]?.initial ?? ''),
    rate: (id) => {
      const value = values[id] ?? params[id]?.initial;
      return typeof value === 'number' || typeof value === 'string' ? value : 1;
    },
    is: (id) => (values[id] ?? params[id]?.initial) === true,
  };
}

export const secondsOf = (piece: Piece, { start, end }: BeatRange): number =>
  placeSeconds(end, tempoOf(piece)) - placeSeconds(start, tempoOf(piece));
export const sampleAt = (piece: Piece, beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
export const beatAt = (piece: Piece, sample: number): number =>
  samplesToBeats(Math.max(0, sample), tempoOf(piece), piece.sampleRate);

/**
 * A track whose clips replace another's: with the same effects, sends, level and pan. Moves and links stay with the
 * other.
 */
export const trackLike = (
  { track, newId }: Pick<RecipeInput, 'track' | 'newId'>,
  name: string,
  clips: readonly Clip[],
): Track => ({
  ...plainTrack(
    newId(),
    name,
    clips,
    track.chain.map((slot) => copyOf(slot, newId())),
    track.gain,
  ),
  pan: track.pan,
  sends: track.sends.map((send) => ({ ...send })),
});

/** A lane that a recipe adds to an effect; values are in the parameter's own unit. */
export const laneOn = (id: string, channel: string, effect: string, param: string, points: readonly Point[]): Lane => ({
  id,
  target: { kind: 'effect', channel, effect, param },
  unit: 'own',
  on: true,
  points: [...points],
});

export const point = (beat: number, value: number, shape: Point['shape'] = 'line', bend = 0): Point => ({
  beat,
  value,
  shape,
  bend,
});

/** Points of a value at `rest` that goes from `from` to `to` over a range, and back to `rest` at its end. */
export const rampOverRange = (
  { start, end }: BeatRange,
  rest: number,
  from: number,
  to: number,
  bend: number,
): Point[] => [
  ...(start > 0 ? [point(0, rest, 'hold')] : []),
  point(start, from, bend === 0 ? 'line' : 'curve', bend),
  point(end, to, 'hold'),
  point(end + 1e-3, rest, 'hold'),
];

/** The clips of a track with the range cut out of them; their sources are kept, so that edges can be extended again. */
export function clearRange({ piece, track, range, newId }: RecipeInput, fadeSeconds = 0.005): Clip[] {
  const seconds = (beat: number): number => placeSeconds(beat, tempoOf(piece));
  return track.clips.flatMap((clip) => {
    const end = clipEnd(piece, clip);
    if (end <= range.start + 1e-9 || clip.start >= range.end - 1e-9) return [clip];
    const parts: Clip[] = [];
    const before = seconds(range.start) - seconds(clip.start);
    const after = seconds(end) - seconds(range.end);
    const late = (lengthSeconds: number): number =>
      clip.offsetSeconds + (clip.reversed ? clip.lengthSeconds - lengthSeconds : 0);
    if (before > fadeSeconds)
      parts.push({
        ...clip,
        lengthSeconds: before,
        offsetSeconds: late(before),
        fadeInSeconds: Math.min(clip.fadeInSeconds, before - fadeSeconds),
        fadeOutSeconds: fadeSeconds,
      });
    if (after > fadeSeconds) {
      parts.push({
        ...clip,
        id: parts.length > 0 ? newId() : clip.id,
        start: range.end,
        lengthSeconds: after,
        offsetSeconds: clip.reversed ? clip.offsetSeconds : clip.offsetSeconds + clip.lengthSeconds - after,
        fadeInSeconds: fadeSeconds,
        fadeOutSeconds: Math.min(clip.fadeOutSeconds, after - fadeSeconds),
      });
    }
    return parts;
  });
}

/** Clips of a track that sound within a range. */
export const clipsIn = ({ piece, track, range }: Pick<RecipeInput, 'piece' | 'track' | 'range'>): Clip[] =>
  track.clips.filter(
    (clip) => !clip.mute && clip.start < range.end - 1e-9 && clipEnd(piece, clip) > range.start + 1e-9,
  );
