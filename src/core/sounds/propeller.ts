import { sinTurns } from '../dsp/approx';
import { canvas, finish, noteHz, NoteMaker, SOUND_RATE } from './tools';

/** A note of the bass: beat from the start of the part, length in beats, MIDI note, strength 0-1. */
export interface PropellerNote {
  readonly beat: number;
  readonly length: number;
  readonly note: number;
  readonly strength: number;
}

const HARMONICS = 7;
const ATTACK_SECONDS = 0.006;
const RELEASE_SECONDS = 0.05;

/** A plucked bass: the higher a harmonic, the faster it decays. */
export function propeller(notes: readonly PropellerNote[], beats: number, bpm: number): Float32Array[] {
  const out = canvas((beats * 60) / bpm);
  const maker = new NoteMaker(bassNote);
  for (const { beat, length, note, strength } of notes)
    maker.add(out, (beat * 60) / bpm, note, (length * 60) / bpm, strength);
  return finish([out], 0.42);
}

function bassNote(note: number, heldSeconds: number): Float32Array {
  const out = canvas(heldSeconds + 6 * RELEASE_SECONDS);
  const hz = noteHz(note);
  for (let h = 1; h <= HARMONICS; h += 1) {
    const level = (h === 1 ? 1 : 0.7) / Math.pow(h, 1.15);
    // Low harmonics last, high ones are the stroke.
    const decay = h === 1 ? 2.2 : 0.9 / h;
    for (let i = 0; i < out.length; i += 1) {
      const seconds = i / SOUND_RATE;
      const release = seconds > heldSeconds ? Math.exp(-(seconds - heldSeconds) / RELEASE_SECONDS) : 1;
      const size = Math.min(1, seconds / ATTACK_SECONDS) * Math.exp(-seconds / decay) * release;
      out[i] = out[i]! + level * size * sinTurns((h * hz * i) / SOUND_RATE);
    }
  }
  return out;
}
