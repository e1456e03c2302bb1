import { addNoise, addPartial, canvas, finish, noteHz } from './tools';

/** A plucked note: beat from the start of the part, MIDI note, strength 0-1. */
export interface Pluck {
  readonly beat: number;
  readonly note: number;
  readonly strength: number;
}

/** Tines of a thumb piano: a nearly pure note, the clamped bar's high partials, thumb and box. */
export function kalimba(plucks: readonly Pluck[], beats: number, bpm: number, random: () => number): Float32Array[] {
  const left = canvas((beats * 60) / bpm);
  const right = canvas((beats * 60) / bpm);
  for (const pluck of plucks) {
    const at = (pluck.beat * 60) / bpm + random() * 0.004;
    const hz = noteHz(pluck.note);
    const ring = 0.75 * Math.pow(440 / hz, 0.45);
    const side = ((pluck.note * 7) % 5) / 4 - 0.5;
    for (const [channel, level] of [
      [left, 1 - 0.35 * side],
      [right, 1 + 0.35 * side],
    ] as const) {
      const strength = pluck.strength * level;
      addPartial(channel, at, hz, 0.62 * strength, ring);
      addPartial(channel, at, hz * 1.0016, 0.3 * strength, ring * 0.8, 0.2);
      addPartial(channel, at, hz * 2.003, 0.1 * strength, ring * 0.35);
      addPartial(channel, at, hz * 5.42, 0.09 * strength * strength, 0.09);
      addPartial(channel, at, hz * 6.27, 0.06 * strength * strength, 0.05);
      addPartial(channel, at, 178, 0.12 * strength, 0.035);
      addNoise(channel, random, at, 0.25 * strength * strength, 0.005, 1200, 5000);
    }
  }
  return finish([left, right], 0.36);
}
