import { sinTurns } from '../dsp/approx';
import { canvas, finish, noteHz, SOUND_RATE } from './tools';

/** A sung note: beats from the start of the phrase, how long, MIDI note, strength 0-1, how open the mouth is 0-1. */
export interface SungNote {
  readonly beat: number;
  readonly length: number;
  readonly note: number;
  readonly strength: number;
  readonly open: number;
}

const HARMONICS = 26;
const CONTROL = 32;
/** Resonances of a closed and of a rounded mouth: frequency, bandwidth, weight. */
const CLOSED = [
  [260, 70, 1],
  [1050, 160, 0.06],
  [2250, 240, 0.03],
] as const;
const ROUND = [
  [340, 80, 1],
  [820, 110, 0.42],
  [2450, 200, 0.09],
] as const;

function resonance(hz: number, set: typeof CLOSED | typeof ROUND): number {
  let sum = 0;
  for (const [centre, width, weight] of set) {
    const away = (hz - centre) / width;
    sum += weight / (1 + away * away);
  }
  return sum;
}

/** One voice humming a phrase: glottal harmonics shaped by the mouth, glides between notes, late vibrato, breath. */
export function hum(notes: readonly SungNote[], beats: number, bpm: number, random: () => number): Float32Array[] {
  const out = canvas((beats * 60) / bpm);
  const phases = new Float64Array(HARMONICS + 1);
  const levels = new Float64Array(HARMONICS + 1);
  const state = { pitch: notes[0]?.note ?? 60, loud: 0, open: 0, drift: 0, breath: 0 };
  for (let at = 0; at < out.length; at += CONTROL) {
    const beat = (at / SOUND_RATE) * (bpm / 60);
    const hz = steer(state, notes, beat, bpm, random);
    for (let h = 1; h <= HARMONICS; h += 1) {
      const partial = h * hz;
      const mouth = resonance(partial, CLOSED) * (1 - state.open) + resonance(partial, ROUND) * state.open;
      const goal = partial < 5200 ? (state.loud * mouth) / Math.pow(h, 0.75 + 0.35 * (1 - state.loud)) : 0;
      addHarmonic(out, at, h, partial, levels, phases, goal);
    }
    addBreath(out, at, state, random);
  }
  return finish([out], 0.34);
}

interface Singer {
  pitch: number;
  loud: number;
  open: number;
  drift: number;
  breath: number;
}

function steer(singer: Singer, notes: readonly SungNote[], beat: number, bpm: number, random: () => number): number {
  const sung = notes.find((note) => beat >= note.beat && beat < note.beat + note.length);
  const since = sung ? ((beat - sung.beat) * 60) / bpm : 0;
  const share = sung ? (beat - sung.beat) / sung.length : 0;
  const swell = sung ? sung.strength * (0.72 + 0.28 * sinTurns(0.5 * Math.min(1, share + 0.08))) : 0;
  const step = CONTROL / SOUND_RATE;
  singer.loud += (swell - singer.loud) * (1 - Math.exp(-step / (swell > singer.loud ? 0.06 : 0.11)));
  singer.open += ((sung ? sung.open : 0) - singer.open) * (1 - Math.exp(-step / 0.12));
  if (sung) singer.pitch += (sung.note - singer.pitch) * (1 - Math.exp(-step / 0.045));
  singer.drift += (random() - 0.5) * 0.012 - singer.drift * 0.01;
  const vibrato = 0.24 * Math.min(1, Math.max(0, since - 0.25) / 0.5) * sinTurns(since * 5.1);
  return noteHz(singer.pitch + vibrato + singer.drift);
}

function addHarmonic(
  out: Float32Array,
  at: number,
  h: number,
  hz: number,
  levels: Float64Array,
  phases: Float64Array,
  goal: number,
): void {
  const end = Math.min(CONTROL, out.length - at);
  const turn = hz / SOUND_RATE;
  const step = (goal - levels[h]!) / CONTROL;
  let level = levels[h]!;
  let phase = phases[h]!;
  if (level > 1e-6 || goal > 1e-6) {
    for (let i = 0; i < end; i += 1) {
      level += step;
      phase += turn;
      out[at + i] = out[at + i]! + level * sinTurns(phase);
    }
  }
  levels[h] = goal;
  phases[h] = phase - Math.floor(phase);
}

function addBreath(out: Float32Array, at: number, singer: Singer, random: () => number): void {
  const end = Math.min(CONTROL, out.length - at);
  for (let i = 0; i < end; i += 1) {
    singer.breath += (random() * 2 - 1 - singer.breath) * 0.18;
    out[at + i] = out[at + i]! + singer.breath * singer.loud * 0.035;
  }
}
