import { sinTurns } from '../dsp/approx';

export const SOUND_RATE = 48_000;

/** A stretch of silence to synthesise into. */
export const canvas = (seconds: number): Float32Array => new Float32Array(Math.ceil(seconds * SOUND_RATE));

/** Frequency of a MIDI note number, A4 = 69 = 440 Hz. */
export const noteHz = (note: number): number => 440 * Math.pow(2, (note - 69) / 12);

/** Adds a decaying partial that begins at `at` seconds. */
export function addPartial(
  out: Float32Array,
  at: number,
  hz: number,
  level: number,
  decaySeconds: number,
  phase = 0,
): void {
  const from = Math.round(at * SOUND_RATE);
  const frames = Math.min(out.length - from, Math.round(decaySeconds * 7 * SOUND_RATE));
  const fall = Math.exp(-1 / (decaySeconds * SOUND_RATE));
  const turn = hz / SOUND_RATE;
  let size = level;
  for (let i = 0; i < frames; i += 1) {
    const attack = i < 48 ? i / 48 : 1;
    out[from + i] = out[from + i]! + size * attack * sinTurns(phase + turn * i);
    size *= fall;
  }
}

/** Notes of an instrument that sound alike are made once and added wherever they are played. */
export class NoteMaker {
  private readonly made = new Map<string, Float32Array>();

  /** @param make the sound of a MIDI note that is held for so many seconds, at full strength */
  constructor(private readonly make: (note: number, seconds: number) => Float32Array) {}

  add(out: Float32Array, at: number, note: number, seconds: number, level: number): void {
    const key = `${note} ${seconds}`;
    let sound = this.made.get(key);
    if (!sound) this.made.set(key, (sound = this.make(note, seconds)));
    const from = Math.round(at * SOUND_RATE);
    const frames = Math.min(out.length - from, sound.length);
    for (let i = 0; i < frames; i += 1) out[from + i] = out[from + i]! + level * sound[i]!;
  }
}

/** Adds a decaying burst of noise between two frequencies (one-pole edges). */
export function addNoise(
  out: Float32Array,
  random: () => number,
  at: number,
  level: number,
  decaySeconds: number,
  lowHz: number,
  highHz: number,
): void {
  const from = Math.round(at * SOUND_RATE);
  const frames = Math.min(out.length - from, Math.round(decaySeconds * 7 * SOUND_RATE));
  const fall = Math.exp(-1 / (decaySeconds * SOUND_RATE));
  const smooth = 1 - Math.exp((-2 * Math.PI * highHz) / SOUND_RATE);
  const drop = 1 - Math.exp((-2 * Math.PI * lowHz) / SOUND_RATE);
  let size = level;
  let top = 0;
  let bottom = 0;
  for (let i = 0; i < frames; i += 1) {
    top += (random() * 2 - 1 - top) * smooth;
    bottom += (top - bottom) * drop;
    out[from + i] = out[from + i]! + size * (top - bottom);
    size *= fall;
  }
}

/** Brings the greatest sample of all channels to `peak` and rounds both ends over 4 ms, so that nothing clicks. */
export function finish(channels: readonly Float32Array[], peak: number): Float32Array[] {
  let most = 1e-9;
  for (const channel of channels) for (const x of channel) if (Math.abs(x) > most) most = Math.abs(x);
  const edge = Math.round(0.004 * SOUND_RATE);
  return channels.map((channel) =>
    channel.map((x, i) => (x * peak * Math.min(1, (channel.length - 1 - i) / edge)) / most),
  );
}

/** Smooth 0-1-0 hump for swells and glides. */
export const hump = (share: number): number => 0.5 - 0.5 * sinTurns(share + 0.25);
