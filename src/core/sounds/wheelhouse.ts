import { sinTurns } from '../dsp/approx';
import { addPartial, canvas, finish, noteHz, NoteMaker, SOUND_RATE } from './tools';

/** A note of a keyboard part: beat from the start of the part, length in beats, MIDI note, strength 0-1. */
export interface Key {
  readonly beat: number;
  readonly length: number;
  readonly note: number;
  readonly strength: number;
}

const REED_RELEASE_SECONDS = 0.05;
/** Detuning of the left and the right reeds, as factors. */
const DETUNING = [0.9992, 1.0008] as const;

/** A reed organ: odd harmonics with a slow attack and tremolo, left and right detuned. */
export function reeds(keys: readonly Key[], beats: number, bpm: number): Float32Array[] {
  const channels = DETUNING.map((detuned, side) => {
    const out = canvas((beats * 60) / bpm);
    const maker = new NoteMaker((note, seconds) => reed(noteHz(note) * detuned, seconds, 0.25 * side));
    for (const { beat, length, note, strength } of keys)
      maker.add(out, (beat * 60) / bpm, note, (length * 60) / bpm, 0.3 * strength);
    return out;
  });
  return finish(channels, 0.34);
}

function reed(hz: number, heldSeconds: number, tremoloPhase: number): Float32Array {
  const out = canvas(heldSeconds + 5 * REED_RELEASE_SECONDS);
  for (let i = 0; i < out.length; i += 1) {
    const seconds = i / SOUND_RATE;
    const release = seconds > heldSeconds ? Math.exp(-(seconds - heldSeconds) / REED_RELEASE_SECONDS) : 1;
    const size = (1 - Math.exp(-seconds / 0.02)) * (0.55 + 0.45 * Math.exp(-seconds / 0.7)) * release;
    const turns = hz * seconds;
    const tremolo = 1 + 0.12 * sinTurns(4.7 * seconds + tremoloPhase);
    const odd = sinTurns(turns) + 0.34 * sinTurns(3 * turns) + 0.07 * sinTurns(5 * turns);
    out[i] = size * tremolo * (odd + 0.12 * sinTurns(2 * turns));
  }
  return out;
}

const LAMP_SECONDS = 2.4;

/** Struck glass: a tone with two inharmonic partials, each note panned to its own position. */
export function lamps(keys: readonly Key[], beats: number, bpm: number): Float32Array[] {
  const maker = new NoteMaker(lamp);
  const channels = [-1, 1].map((way) => {
    const out = canvas((beats * 60) / bpm);
    for (const { beat, note, strength } of keys) {
      const side = ((note * 5) % 7) / 6 - 0.5;
      maker.add(out, (beat * 60) / bpm, note, LAMP_SECONDS, strength * (1 + 0.6 * way * side));
    }
    return out;
  });
  return finish(channels, 0.3);
}

function lamp(note: number, seconds: number): Float32Array {
  const out = canvas(seconds);
  const hz = noteHz(note);
  addPartial(out, 0, hz, 0.4, 0.5);
  addPartial(out, 0, hz * 2.76, 0.12, 0.16);
  addPartial(out, 0, hz * 5.4, 0.04, 0.05);
  return out;
}
