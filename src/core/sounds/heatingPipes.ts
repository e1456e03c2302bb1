import { sinTurns } from '../dsp/approx';
import { canvas, finish, noteHz, SOUND_RATE } from './tools';

/** A note of the pipes: beat from the start of the part, length in beats, MIDI note. */
export interface PipeNote {
  readonly beat: number;
  readonly length: number;
  readonly note: number;
}

/** Partials of a warm pipe: multiple of the note, level, how fast it beats in Hz. */
const PARTIALS = [
  [1, 1, 0.07],
  [2, 0.34, 0.11],
  [3, 0.16, 0.19],
  [4, 0.05, 0.23],
  [5, 0.03, 0.31],
] as const;
const RISE_SECONDS = 2.5;

/** Warm water in iron pipes: long low notes that come and go slowly, each partial wandering between the sides. */
export function heatingPipes(notes: readonly PipeNote[], beats: number, bpm: number): Float32Array[] {
  const sides = [canvas((beats * 60) / bpm), canvas((beats * 60) / bpm)];
  for (const { beat, length, note } of notes)
    for (const [multiple, level, beating] of PARTIALS)
      sides.forEach((side, i) => {
        const seconds = (length * 60) / bpm;
        const from = Math.round(((beat * 60) / bpm) * SOUND_RATE);
        const frames = Math.min(side.length - from, Math.round(seconds * SOUND_RATE));
        const turn = (noteHz(note) * multiple) / SOUND_RATE;
        for (let k = 0; k < frames; k += 1) {
          const t = k / SOUND_RATE;
          const edge = Math.min(1, t / RISE_SECONDS, (seconds - t) / RISE_SECONDS);
          const swing = 0.7 + 0.3 * sinTurns(beating * t + (i === 0 ? 0 : 0.5) + 0.13 * multiple);
          side[from + k] = side[from + k]! + level * edge * edge * (3 - 2 * edge) * swing * sinTurns(turn * k);
        }
      });
  return finish(sides, 0.3);
}
