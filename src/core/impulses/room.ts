import FFT from 'fft.js';
import { imageSources, SPEED_OF_SOUND, type Image, type Point } from '../dsp/imageSources';
import { makeRandom } from '../dsp/random';
import { SINC_BEFORE, SINC_TAPS, sincCoefficients } from '../dsp/sincTable';
import { AIR, MATERIALS, OCTAVES, type Material } from './materials';

/** A shoebox room: width, depth and height in metres; a material for left, right, front, back, floor and ceiling. */
export interface Room {
  readonly box: Point;
  readonly walls: readonly [Material, Material, Material, Material, Material, Material];
  readonly source: Point;
  readonly listener: Point;
  /** 0-1: furniture, which scatters reflections. */
  readonly scattering: number;
}

export interface Impulse {
  readonly left: Float32Array;
  readonly right: Float32Array;
}

const ORDER = 7;
/** Half the distance between the two receivers, in metres. */
const EAR = 0.09;
const SIDE_DEPTH = 0.6;
const LONGEST_SECONDS = 8;

/** Areas of the six walls in square metres. */
const areas = ([w, d, h]: Point): number[] => [d * h, d * h, w * h, w * h, w * d, w * d];

/** Mean absorption of a room's walls in an octave, weighted by area. */
function meanAbsorption({ box, walls }: Room, octave: number): number {
  const size = areas(box);
  const total = size.reduce((sum, area) => sum + area, 0);
  return walls.reduce((sum, wall, i) => sum + MATERIALS[wall][octave]! * size[i]!, 0) / total;
}

/** Seconds for 60 dB in an octave, after C. F. Eyring, "Reverberation time in dead rooms" (1930), with air (4 m V). */
export function eyringSeconds(room: Room, octave: number): number {
  const [w, d, h] = room.box;
  const surface = areas(room.box).reduce((sum, area) => sum + area, 0);
  const absorption = Math.min(0.99, meanAbsorption(room, octave));
  return (
    (24 * Math.LN10 * w * d * h) /
    (SPEED_OF_SOUND * (-surface * Math.log(1 - absorption) + 4 * AIR[octave]! * w * d * h))
  );
}

/** The same after W. C. Sabine, "Collected Papers on Acoustics" (1922): for live rooms. */
export function sabineSeconds(room: Room, octave: number): number {
  const [w, d, h] = room.box;
  const surface = areas(room.box).reduce((sum, area) => sum + area, 0);
  return (
    (24 * Math.LN10 * w * d * h) /
    (SPEED_OF_SOUND * (surface * meanAbsorption(room, octave) + 4 * AIR[octave]! * w * d * h))
  );
}

/** Seconds after the direct sound up to which single reflections are computed; noise follows. */
const mixingSeconds = ({ box, scattering }: Room): number => {
  const shortest = Math.min(...box);
  return Math.min(0.09, ((ORDER - 2) * shortest) / SPEED_OF_SOUND) * (1 - 0.7 * scattering);
};

/**
 * Stereo impulse response of a room without the direct sound, whose time is sample 0. Early part by mirror images, late
 * part as noise that decays in each octave by Eyring's formula, at the level that the images would have together.
 */
export function roomImpulse(room: Room, sampleRate: number, start = 1): Impulse {
  const decays = OCTAVES.map((_, octave) => eyringSeconds(room, octave));
  const seconds = Math.min(LONGEST_SECONDS, Math.max(0.15, 1.1 * Math.max(...decays)));
  let size = 1024;
  while (size < seconds * sampleRate) size *= 2;
  const length = Math.round(seconds * sampleRate);
  const side = (which: -1 | 1): Float32Array => {
    const [x, y, z] = room.listener;
    const images = imageSources(room.box, room.source, [x + which * EAR, y, z], ORDER);
    const direct = Math.hypot(room.source[0] - x, room.source[1] - y, room.source[2] - z);
    const tracks = OCTAVES.map((_, octave) =>
      track(
        room,
        images,
        which,
        direct,
        octave,
        decays[octave]!,
        length,
        size,
        sampleRate,
        start * 97 + (which + 1) * 31 + octave,
      ),
    );
    return sumOfBands(tracks, size, sampleRate).slice(0, length);
  };
  return { left: side(-1), right: side(1) };
}

/** Reflections and tail at one receiver for one octave, before the band-pass. */
function track(
  room: Room,
  images: readonly Image[],
  side: -1 | 1,
  direct: number,
  octave: number,
  decay: number,
  length: number,
  size: number,
  sampleRate: number,
  start: number,
): Float64Array {
  const out = new Float64Array(size);
  const mixing = mixingSeconds(room);
  for (const image of images.slice(1)) {
    const seconds = (image.distance - direct) / SPEED_OF_SOUND;
    if (seconds < 0 || seconds > mixing * 1.25) continue;
    const fade = seconds < mixing * 0.75 ? 1 : Math.cos((0.5 * Math.PI * (seconds - 0.75 * mixing)) / (0.5 * mixing));
    place(out, seconds * sampleRate, fade * gainOf(room, image, side, octave));
  }
  const [w, d, h] = room.box;
  const random = makeRandom(start);
  const level = Math.sqrt((4 * Math.PI * SPEED_OF_SOUND) / (w * d * h * sampleRate));
  const total = direct / SPEED_OF_SOUND;
  for (let i = Math.floor(mixing * 0.75 * sampleRate); i < length; i += 1) {
    const seconds = i / sampleRate;
    const rise = seconds > mixing * 1.25 ? 1 : Math.sin((0.5 * Math.PI * (seconds - 0.75 * mixing)) / (0.5 * mixing));
    // The sum of three uniform values is nearly Gaussian.
    const noise = 2 * (random() + random() + random()) - 3;
    out[i] = out[i]! + rise * level * noise * Math.pow(10, (-3 * (seconds + total)) / decay);
  }
  return out;
}

function gainOf(
  { walls, scattering }: Room,
  { distance, toward, bounces }: Image,
  side: -1 | 1,
  octave: number,
): number {
  let gain = Math.exp(-0.5 * AIR[octave]! * distance) / distance;
  bounces.forEach((count, wall) => {
    gain *= Math.pow(Math.sqrt(1 - MATERIALS[walls[wall]!][octave]!) * (1 - 0.5 * scattering), count);
  });
  const aside = toward[0] / Math.max(0.01, Math.hypot(...toward));
  return gain * Math.sqrt(Math.max(0, 1 + side * SIDE_DEPTH * aside));
}

const taps = new Float64Array(SINC_TAPS);

/** Adds an impulse at a fractional position. */
function place(out: Float64Array, at: number, gain: number): void {
  const whole = Math.floor(at);
  sincCoefficients(1 - (at - whole), taps);
  for (let k = 0; k < SINC_TAPS; k += 1) {
    const index = whole + 1 - SINC_BEFORE - 1 + k;
    if (index >= 0 && index < out.length) out[index] = out[index]! + gain * taps[SINC_TAPS - 1 - k]!;
  }
}

/** Filters each track to its octave and sums them; the bands have zero phase, so that nothing is delayed. */
function sumOfBands(tracks: readonly Float64Array[], size: number, sampleRate: number): Float32Array {
  const fft = new FFT(size);
  const sum = fft.createComplexArray();
  const spectrum = fft.createComplexArray();
  sum.fill(0);
  tracks.forEach((samples, band) => {
    fft.realTransform(spectrum, samples);
    for (let k = 0; k <= size / 2; k += 1) {
      const weight = bandWeight((k * sampleRate) / size, band);
      sum[2 * k] = sum[2 * k]! + weight * spectrum[2 * k]!;
      sum[2 * k + 1] = sum[2 * k + 1]! + weight * spectrum[2 * k + 1]!;
    }
  });
  fft.completeSpectrum(sum);
  fft.inverseTransform(spectrum, sum);
  return Float32Array.from({ length: size }, (_, i) => spectrum[2 * i]!);
}

/** Octaves to either side of an edge over which one band is crossfaded to the next. */
const HANDOVER = 0.05;

/** Weights that add up to 1 at every frequency. */
function bandWeight(hz: number, band: number): number {
  const octaves = Math.log2(Math.max(hz, 1) / OCTAVES[band]!);
  if ((band === 0 && octaves < 0) || (band === OCTAVES.length - 1 && octaves > 0)) return 1;
  const beyond = (Math.abs(octaves) - 0.5) / HANDOVER;
  return beyond <= -1 ? 1 : beyond >= 1 ? 0 : 0.5 - 0.5 * Math.sin((Math.PI * beyond) / 2);
}
