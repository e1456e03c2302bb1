import { plainClip } from './plain';
import type { SoundData } from '../dsp/soundData';
import type { ParamValue } from '../params/param';
import { newSlot } from './edits/chain';
import { emptyPiece, type Clip, type Lane, type Piece, type Track, type Target } from './piece';

export const RATE = 48_000;
export const hashOf = (digit: number): string => String(digit).repeat(64).slice(0, 64);

/** A sound made from a function of the sample's index; for tests. */
export const soundOf = (seconds: number, wave: (i: number) => number): Float32Array =>
  Float32Array.from({ length: Math.round(seconds * RATE) }, (_, i) => wave(i));

export const clipOf = (
  id: string,
  digit: number,
  start: number,
  lengthSeconds: number,
  more: Partial<Clip> = {},
): Clip => plainClip(id, id, hashOf(digit), start, lengthSeconds, more);

export interface Scene {
  readonly piece: Piece;
  readonly sounds: Map<string, SoundData>;
}

/** A piece at 120 BPM with a track for each list of clips; sound number n is `waves[n]`. */
export function scene(
  waves: readonly Float32Array[],
  tracks: readonly (Partial<Track> & { clips: Clip[] })[],
  more: Partial<Piece> = {},
): Scene {
  const piece: Piece = {
    ...emptyPiece('scene', 'Scene'),
    tempo: { bpm: 120, beatsPerBar: 4 },
    sounds: Object.fromEntries(
      waves.map((wave, i) => [
        hashOf(i),
        { name: `wave ${i}`, frames: wave.length, sampleRate: RATE, channels: 1 as const },
      ]),
    ),
    tracks: tracks.map((track, i) => ({
      id: `t${i}`,
      name: `Track ${i}`,
      gain: 1,
      pan: 0,
      mute: false,
      solo: false,
      chain: [],
      sends: [],
      ...track,
    })),
    ...more,
  };
  return { piece, sounds: new Map(waves.map((wave, i) => [hashOf(i), [wave]])) };
}

export const echoSlot = (id: string, values: Readonly<Record<string, ParamValue>>): Piece['main']['chain'][number] =>
  newSlot(id, 'echo', 'neutral', values);

/** The target of an effect, or of the channel itself without one. */
export const targetOf = (channel: string, effect: string | null, param: string): Target =>
  effect === null ? { kind: 'channel', channel, param } : { kind: 'effect', channel, effect, param };

export const laneOf = (
  channel: string,
  effect: string | null,
  param: string,
  points: readonly (readonly [number, number])[],
): Lane => ({
  id: `lane-${param}`,
  target: targetOf(channel, effect, param),
  unit: 'own',
  on: true,
  points: points.map(([beat, value]) => ({ beat, value, shape: 'line', bend: 0 })),
});
