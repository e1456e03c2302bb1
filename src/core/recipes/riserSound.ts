import type { SoundData } from '../dsp/soundData';
import { polyBlepResidual } from '../dsp/polyBlepResidual';
import { makeRandom } from '../dsp/random';
import { READ_FRAMES, SincRings } from '../dsp/sincRings';
import { seamless } from './seamless';

/** Direction: up into the end of a range, or down from its beginning. */
export type RiserWay = 'rise' | 'fall';

const TONE_TOP_HZ = 440;
/** Detuning of two voices, for width. */
const DETUNE = 1.004;
/** Fades at the beginning and the end, so that a cut never clicks. */
const EDGE_SECONDS = 0.003;
const OVERLAP_SECONDS = 0.25;
/** A track's own sound is brought to this mean level, as far as its peaks stay under the other. */
const OWN_LEVEL = 0.2;
const OWN_PEAK = 0.8;

/** Fades the beginning and the end of each channel. */
export function withFades(channels: SoundData, sampleRate: number): Float32Array[] {
  const edge = Math.round(EDGE_SECONDS * sampleRate);
  return channels.map((side) => side.map((x, i) => x * Math.min(1, i / edge, (side.length - 1 - i) / edge)));
}

/** White, two channels unlike each other, at -12 dB of its peak on average. @param roll chooses among all noises */
export function risingNoise(length: number, roll: number): Float32Array[] {
  return [roll, roll ^ 0x5bd1e995].map((start) => {
    const random = makeRandom(start);
    return Float32Array.from({ length }, () => 0.43 * (2 * random() - 1));
  });
}

/** Playback speed of a rising sound at a share of its length: full speed at its loudest. */
const speedAt = (semitones: number, way: RiserWay, share: number): number =>
  Math.pow(2, (semitones / 12) * ((way === 'rise' ? share : 1 - share) - 1));

/** A saw that slides up to 440 Hz or down from it, band-limited, in two voices. */
export function risingTone(length: number, sampleRate: number, semitones: number, way: RiserWay): Float32Array[] {
  return [1, DETUNE].map((detune) => {
    const out = new Float32Array(length);
    let phase = 0;
    for (let i = 0; i < length; i += 1) {
      const step = (TONE_TOP_HZ * detune * speedAt(semitones, way, i / length)) / sampleRate;
      out[i] = 0.35 * (2 * phase - 1 - polyBlepResidual(phase, step));
      phase += step;
      if (phase >= 1) phase -= 1;
    }
    return out;
  });
}

/** A seamless loop of a sound, gliding up to its own pitch or down from it. @param material two channels */
export function risingOwn(
  material: SoundData,
  length: number,
  sampleRate: number,
  semitones: number,
  way: RiserWay,
): Float32Array[] {
  const turn = seamless(
    material,
    Math.min(Math.round(OVERLAP_SECONDS * sampleRate), material[0]!.length >> 2),
    sampleRate,
  );
  let [peak, power] = [1e-9, 1e-12];
  for (const side of turn) {
    for (const x of side) {
      peak = Math.max(peak, Math.abs(x));
      power += (x * x) / (2 * side.length);
    }
  }
  const gain = Math.min(OWN_LEVEL / Math.sqrt(power), OWN_PEAK / peak);
  return glided(turn, length, semitones, way).map((side) => side.map((x) => x * gain));
}

/** Reads a loop at gliding speed, the right channel a little faster than the left. */
function glided(loop: SoundData, length: number, semitones: number, way: RiserWay): Float32Array[] {
  const [left, right] = [loop[0]!, loop[1] ?? loop[0]!].map((side) => Float64Array.from(side));
  const turn = left!.length;
  // The loop repeated often enough, so that no reader wraps.
  let size = 1024;
  while (size < length * DETUNE + 256) size *= 2;
  const rings = new SincRings(size);
  for (let at = 0; at < size; at += turn) rings.write(at, left!, right!, Math.min(turn, size - at));
  return [1, DETUNE].map((detune, side) => {
    const out = new Float32Array(length);
    let place = 64;
    for (let from = 0; from < length; from += READ_FRAMES) {
      const n = Math.min(READ_FRAMES, length - from);
      const speed = detune * speedAt(semitones, way, from / length);
      const growth = (detune * speedAt(semitones, way, (from + n) / length) - speed) / n;
      rings.read(place, speed, growth, 0, n);
      out.set((side === 0 ? rings.outLeft : rings.outRight).subarray(0, n), from);
      place += n * speed + (n * (n - 1) * growth) / 2;
    }
    return out;
  });
}
