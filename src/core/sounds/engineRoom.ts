import { sinTurns } from '../dsp/approx';
import { addNoise, addPartial, canvas, finish, SOUND_RATE } from './tools';

export type EngineHit = 'piston' | 'valve' | 'chain' | 'rivet';

/** A drum hit: beat from the start of the part, which drum, strength 0-1. */
export interface EngineStroke {
  readonly beat: number;
  readonly hit: EngineHit;
  readonly strength: number;
}

/** Drums of an engine room: piston (kick), valve (snare), chain (hi-hat) and rivet (rim). */
export function engineRoom(
  strokes: readonly EngineStroke[],
  beats: number,
  bpm: number,
  random: () => number,
): Float32Array[] {
  const left = canvas((beats * 60) / bpm);
  const right = canvas((beats * 60) / bpm);
  for (const { beat, hit, strength } of strokes) {
    // Nobody hits a line to the sample.
    const at = (beat * 60) / bpm + (hit === 'piston' ? 0 : 0.003 * random());
    if (hit === 'piston') for (const side of [left, right]) piston(side, at, strength, random);
    else if (hit === 'valve') for (const side of [left, right]) valve(side, at, strength, random);
    else if (hit === 'chain') {
      chain(left, at, 0.8 * strength, random);
      chain(right, at, strength, random);
    } else {
      rivet(left, at, strength, random);
      rivet(right, at, 0.4 * strength, random);
    }
  }
  return finish([left, right], 0.5);
}

function piston(out: Float32Array, at: number, strength: number, random: () => number): void {
  const from = Math.round(at * SOUND_RATE);
  const frames = Math.min(out.length - from, Math.round(0.5 * SOUND_RATE));
  let phase = 0;
  for (let i = 0; i < frames; i += 1) {
    const seconds = i / SOUND_RATE;
    phase += (46 + 92 * Math.exp(-seconds / 0.022)) / SOUND_RATE;
    const size = Math.min(1, i / 40) * Math.exp(-seconds / 0.11);
    out[from + i] = out[from + i]! + strength * size * sinTurns(phase);
  }
  addNoise(out, random, at, 0.25 * strength, 0.004, 900, 5000);
}

function valve(out: Float32Array, at: number, strength: number, random: () => number): void {
  addPartial(out, at, 176, 0.34 * strength, 0.07);
  addPartial(out, at, 331, 0.2 * strength, 0.05);
  addNoise(out, random, at, 0.8 * strength, 0.07, 1400, 8000);
  addNoise(out, random, at + 0.008, 0.3 * strength, 0.16, 3000, 9000);
}

function chain(out: Float32Array, at: number, strength: number, random: () => number): void {
  addNoise(out, random, at, 0.24 * strength, 0.02, 6000, 14_000);
  addPartial(out, at, 6131, 0.03 * strength, 0.02);
  addPartial(out, at, 8417, 0.02 * strength, 0.015);
}

function rivet(out: Float32Array, at: number, strength: number, random: () => number): void {
  addPartial(out, at, 921, 0.16 * strength, 0.06);
  addPartial(out, at, 1497, 0.1 * strength, 0.045);
  addPartial(out, at, 2689, 0.06 * strength, 0.03);
  addNoise(out, random, at, 0.1 * strength, 0.004, 2000, 9000);
}
