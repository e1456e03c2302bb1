import { sinTurns } from '../dsp/approx';
import { canvas, finish, noteHz, SOUND_RATE } from './tools';

/** A long bass note: beat, length in beats, MIDI note. */
export interface HornNote {
  readonly beat: number;
  readonly length: number;
  readonly note: number;
}

const HARMONICS = 16;

/** A far foghorn: two reeds a hair apart, opening as they speak and closing as they tire. */
export function foghorn(notes: readonly HornNote[], beats: number, bpm: number): Float32Array[] {
  const out = canvas((beats * 60) / bpm);
  for (const note of notes) blow(out, note, bpm);
  return finish([out], 0.36);
}

function blow(out: Float32Array, note: HornNote, bpm: number): void {
  const from = Math.round(((note.beat * 60) / bpm) * SOUND_RATE);
  const sounding = (note.length * 60) / bpm;
  const frames = Math.min(out.length - from, Math.round((sounding + 0.25) * SOUND_RATE));
  const hz = noteHz(note.note);
  const { sizes, opens } = breath(sounding, frames);
  for (let h = 1; h <= HARMONICS; h += 1) {
    const reed = 1 / Math.pow(h, 1.15);
    for (let i = 0; i < frames; i += 1) {
      const t = i / SOUND_RATE;
      const over = (h * hz) / opens[i]!;
      const size = sizes[i]! * (reed / (1 + over * over));
      out[from + i] = out[from + i]! + size * (sinTurns(h * hz * t) + 0.7 * sinTurns(h * hz * 1.0031 * t + 0.3));
    }
  }
}

/** How loud a note is at each of its samples, with its tremor, and its cutoff in Hz. */
function breath(sounding: number, frames: number): { sizes: Float64Array; opens: Float64Array } {
  const sizes = new Float64Array(frames);
  const opens = new Float64Array(frames);
  for (let i = 0; i < frames; i += 1) {
    const t = i / SOUND_RATE;
    const attack = t < 0.09 ? t / 0.09 : 1;
    const end = t > sounding ? Math.max(0, 1 - (t - sounding) / 0.25) : 1;
    sizes[i] = attack * end * (1 - 0.18 * sinTurns(t * 5.5) * Math.max(0, 1 - t / 0.6));
    opens[i] = 260 + 520 * Math.min(1, t / 0.18) * (1 - 0.55 * Math.min(1, t / sounding));
  }
  return { sizes, opens };
}
