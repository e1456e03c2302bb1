import { sinTurns } from '../dsp/approx';
import { addNoise, addPartial, canvas, finish, SOUND_RATE } from './tools';

export type CrateHit = 'thud' | 'crack' | 'tap' | 'tick';
export interface Hit {
  readonly beat: number;
  readonly hit: CrateHit;
  readonly strength: number;
}

/** Fish crates played by hand: thud on the bottom, crack on the rim, taps with the fingers, ticks on the slats. */
export function crates(hits: readonly Hit[], beats: number, bpm: number, random: () => number): Float32Array[] {
  const left = canvas((beats * 60) / bpm);
  const right = canvas((beats * 60) / bpm);
  for (const { beat, hit, strength } of hits) {
    const at = (beat * 60) / bpm;
    if (hit === 'thud') for (const side of [left, right]) thud(side, at, strength, random);
    else if (hit === 'crack') for (const side of [left, right]) crack(side, at, strength, random);
    else if (hit === 'tap') {
      tap(left, at, strength * 0.9, 610 + 60 * random(), random);
      tap(right, at, strength * 0.5, 640, random);
    } else {
      addNoise(left, random, at, 0.2 * strength, 0.016, 5200, 12000);
      addNoise(right, random, at, 0.34 * strength, 0.018, 5600, 12000);
    }
  }
  return finish([left, right], 0.5);
}

function thud(out: Float32Array, at: number, strength: number, random: () => number): void {
  const from = Math.round(at * SOUND_RATE);
  const frames = Math.min(out.length - from, Math.round(0.6 * SOUND_RATE));
  let phase = 0;
  for (let i = 0; i < frames; i += 1) {
    const seconds = i / SOUND_RATE;
    phase += (54 + 66 * Math.exp(-seconds / 0.028)) / SOUND_RATE;
    const attack = Math.min(1, i / 60);
    out[from + i] = out[from + i]! + 0.95 * strength * attack * Math.exp(-seconds / 0.13) * sinTurns(phase);
  }
  addPartial(out, at, 188, 0.2 * strength, 0.03);
  addNoise(out, random, at, 0.3 * strength, 0.006, 300, 2600);
}

function crack(out: Float32Array, at: number, strength: number, random: () => number): void {
  addPartial(out, at, 231, 0.32 * strength, 0.06);
  addPartial(out, at, 418, 0.3 * strength, 0.045);
  addPartial(out, at, 694, 0.18 * strength, 0.03);
  addPartial(out, at, 1133, 0.12 * strength, 0.02);
  addNoise(out, random, at, 0.75 * strength, 0.055, 900, 5200);
}

function tap(out: Float32Array, at: number, strength: number, hz: number, random: () => number): void {
  addPartial(out, at, hz, 0.2 * strength, 0.03);
  addPartial(out, at, hz * 1.72, 0.1 * strength, 0.018);
  addNoise(out, random, at, 0.16 * strength, 0.01, 800, 4000);
}
