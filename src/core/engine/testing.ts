import { RATE, type Scene } from '../piece/testing';
import { Engine } from './engine';
import { compilePlan } from './compilePlan';

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
