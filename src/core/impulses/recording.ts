import type { Impulse } from './room';

/** The onset is where the sound first reaches this level relative to its peak. */
const ONSET_DB = -34;
const BEFORE_SECONDS = 0.001;
const FRAME_SECONDS = 0.01;
/** Levels this close to the quietest tenth of the sound count as noise. */
const FLOOR_MARGIN_DB = 6;
const FADE_SECONDS = 0.05;

/**
 * A recorded clap, burst or any sound as an impulse: from its onset on, and faded out where it reaches its noise floor.
 */
export function fromRecording({ left, right }: Impulse, sampleRate: number): Impulse {
  let peak = 0;
  for (let i = 0; i < left.length; i += 1) peak = Math.max(peak, Math.abs(left[i]!), Math.abs(right[i]!));
  if (peak === 0) return { left, right };
  const threshold = peak * Math.pow(10, ONSET_DB / 20);
  let onset = 0;
  while (onset < left.length && Math.abs(left[onset]!) < threshold && Math.abs(right[onset]!) < threshold) onset += 1;
  const from = Math.max(0, onset - Math.round(BEFORE_SECONDS * sampleRate));
  const end = endOfDecay(left, right, from, sampleRate);
  const fade = Math.min(end - from, Math.round(FADE_SECONDS * sampleRate));
  const side = (samples: Float32Array): Float32Array =>
    samples
      .slice(from, end)
      .map((x, i) => (end - from - i < fade ? x * (0.5 - 0.5 * Math.cos((Math.PI * (end - from - i)) / fade)) : x));
  return { left: side(left), right: side(right) };
}

/** The time from which the sound stays at its noise floor; its whole length when it never does. */
function endOfDecay(left: Float32Array, right: Float32Array, from: number, sampleRate: number): number {
  const frame = Math.round(FRAME_SECONDS * sampleRate);
  const powers: number[] = [];
  for (let at = from; at + frame <= left.length; at += frame) {
    let sum = 0;
    for (let i = at; i < at + frame; i += 1) sum += left[i]! * left[i]! + right[i]! * right[i]!;
    powers.push(sum / frame);
  }
  if (powers.length < 20) return left.length;
  const sorted = [...powers].sort((a, b) => a - b);
  const floor = sorted[Math.floor(sorted.length / 10)]! * Math.pow(10, FLOOR_MARGIN_DB / 10);
  let last = powers.length - 1;
  while (last > 0 && powers[last]! <= floor) last -= 1;
  return Math.min(left.length, from + (last + 2) * frame);
}
