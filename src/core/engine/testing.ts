import type { ParamValue } from '../params/param';
import { newSlot } from '../piece/edits/chain';
import { emptyPiece, type Clip, type Lane, type Piece, type Track } from '../piece/piece';
import type { SoundData } from './clipReader';
import { Engine } from './engine';
import { compilePlan } from './plan';

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
): Clip => ({
  id,
  name: id,
  sound: hashOf(digit),
  start,
  offsetSeconds: 0,
  lengthSeconds,
  gain: 1,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  print: null,
  ...more,
});

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

export const laneOf = (
  channel: string,
  effect: string | null,
  param: string,
  points: readonly (readonly [number, number])[],
): Lane => ({
  id: `lane-${param}`,
  target: { channel, effect, param },
  unit: 'own',
  on: true,
  points: points.map(([beat, value]) => ({ beat, value, shape: 'line', bend: 0 })),
});

export function engineOf({ piece, sounds }: Scene): Engine {
  const engine = new Engine(piece.sampleRate);
  for (const [hash, data] of sounds) engine.addSound(hash, data);
  engine.setPlan(compilePlan(piece));
  return engine;
}

/** Runs an engine in blocks of a size. */
export function runEngine(engine: Engine, seconds: number, block = 128): { left: Float32Array; right: Float32Array } {
  const frames = Math.round(seconds * RATE);
  const left = new Float32Array(frames);
  const right = new Float32Array(frames);
  for (let at = 0; at < frames; at += block) {
    const n = Math.min(block, frames - at);
    engine.process(left.subarray(at, at + n), right.subarray(at, at + n), n);
  }
  return { left, right };
}

export const peakIn = (samples: Float32Array, from = 0, to = samples.length): number =>
  samples.subarray(from, to).reduce((most, x) => Math.max(most, Math.abs(x)), 0);

/** Largest difference of two runs. */
export const awayFrom = (a: Float32Array, b: Float32Array): number =>
  a.reduce((most, x, i) => Math.max(most, Math.abs(x - b[i]!)), Math.abs(a.length - b.length));

/** Largest sixth difference from a sample on: a step shows in it by a factor of twenty, a sine of 220 Hz does not. */
export function roughness(samples: ArrayLike<number>, from = 72_006): number {
  let most = 0;
  for (let i = from; i < samples.length; i += 1) {
    const s = (k: number): number => samples[i - k]!;
    most = Math.max(most, Math.abs(s(0) - 6 * s(1) + 15 * s(2) - 20 * s(3) + 15 * s(4) - 6 * s(5) + s(6)));
  }
  return most;
}
