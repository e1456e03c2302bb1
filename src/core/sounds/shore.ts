import { sinTurns } from '../dsp/approx';
import { addPartial, canvas, finish, hump, SOUND_RATE } from './tools';

/** Where gulls call and ropes creak, in beats. */
export interface ShoreEvents {
  readonly gulls: readonly number[];
  readonly creaks: readonly number[];
}

/** The place itself: low water on the piles, gulls, a rope that works against its post. */
export function shore(events: ShoreEvents, beats: number, bpm: number, random: () => number): Float32Array[] {
  const left = canvas((beats * 60) / bpm);
  const right = canvas((beats * 60) / bpm);
  water(left, 0, random);
  water(right, 0.37, random);
  events.gulls.forEach((beat, i) => gull([left, right], (beat * 60) / bpm, i % 2 === 0 ? 0.75 : 0.25, random));
  for (const beat of events.creaks) creak([left, right], (beat * 60) / bpm, random);
  return finish([left, right], 0.2);
}

function water(out: Float32Array, phase: number, random: () => number): void {
  let low = 0;
  let deep = 0;
  for (let i = 0; i < out.length; i += 1) {
    const t = i / SOUND_RATE;
    low += (random() * 2 - 1 - low) * 0.045;
    deep += (low - deep) * 0.004;
    const lap = 0.35 + 0.65 * hump(t / 5.2174 + phase) * hump(t / 1.6 + phase);
    const fade = Math.min(1, t / 0.5, (out.length / SOUND_RATE - t) / 0.5);
    out[i] = out[i]! + (low - deep) * lap * fade * 0.34;
  }
}

function gull(sides: readonly Float32Array[], at: number, place: number, random: () => number): void {
  const calls = 3 + Math.floor(random() * 3);
  for (let call = 0; call < calls; call += 1) {
    const start = at + call * 0.31;
    const seconds = 0.2 + random() * 0.06;
    let phase = 0;
    for (let i = 0; i < seconds * SOUND_RATE; i += 1) {
      const share = i / (seconds * SOUND_RATE);
      const hz = (1250 + 650 * hump(Math.min(1, share * 1.3) * 0.9)) * (1 - 0.03 * call);
      phase += hz / SOUND_RATE;
      const size = 0.1 * hump(share) * (1 - 0.12 * call);
      const voice =
        sinTurns(phase) + 0.5 * sinTurns(2 * phase) * share + 0.25 * sinTurns(3 * phase + 0.4 * sinTurns(share * 14));
      const index = Math.round(start * SOUND_RATE) + i;
      addAt(sides[0]!, index, voice * size * (1 - place));
      addAt(sides[1]!, index, voice * size * place);
    }
  }
}

function addAt(out: Float32Array, index: number, value: number): void {
  if (index < out.length) out[index] = out[index]! + value;
}

function creak(sides: readonly Float32Array[], at: number, random: () => number): void {
  let t = at;
  for (let slip = 0; slip < 26; slip += 1) {
    t += 1 / (22 + 34 * hump(slip / 26)) + random() * 0.004;
    const size = 0.09 * hump((slip + 1) / 28);
    for (const [side, level] of [
      [sides[0]!, 0.7],
      [sides[1]!, 1],
    ] as const) {
      addPartial(side, t, 470 + slip * 3, size * level, 0.012);
      addPartial(side, t, 860 + slip * 5, size * level * 0.6, 0.008);
      addPartial(side, t, 1410, size * level * 0.3, 0.005);
    }
  }
}
