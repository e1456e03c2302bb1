import FFT from 'fft.js';
import type { SoundData } from '../dsp/soundData';

export interface Onset {
  readonly seconds: number;
  /** Loudness of the hit relative to the loudest, 0-1: half as loud is 10 dB less. */
  readonly strength: number;
  /** Middle of its spectrum: low for a drum, high for a snare or a hat. */
  readonly centroidHz: number;
}

const FRAMES = 2048;
const HOP = 256;
const BINS = FRAMES / 2;
/** Magnitudes are counted as log(1 + PRESS * m), so that quiet hits count too. */
const PRESS = 200;
/** Lowest frequency of the bands, and bands per octave. */
const PER_OCTAVE = 24;
const LOWEST_HZ = 40;
const HIGHEST_HZ = 16_000;
/** Time between the frames that are compared: a glide from note to note moves further in it than a vibrato does. */
const LAG_SECONDS = 0.03;
/** A rise must be this far over the mean of those around it, as a share of the highest of all. */
const OVER = 0.08;
const AROUND_SECONDS = 0.12;
const MIN_GAP_SECONDS = 0.05;
/** A hit begins where its envelope first reaches this share of its peak. */
const BEGUN = 0.12;
const PEAK_SECONDS = 0.04;
/** Its beginning is searched from this many samples before the rise on. */
const BACK = 1024;
/** Exponent of loudness over pressure (S. S. Stevens, "The Measurement of Loudness", 1955). */
const HEARD = 0.6;
/** Hits this far below the loudest are ignored. */
const QUIETEST = 0.01;

/** Onsets of a mono or stereo sound, from the sum of both channels. */
export function soundOnsets([left = new Float32Array(0), right = left]: SoundData, sampleRate: number): Onset[] {
  return findOnsets(
    left.map((x, i) => 0.5 * (x + right[i]!)),
    sampleRate,
  );
}

/**
 * Onsets of a sound: peaks of the spectral flux over a moving mean, each then moved to where its envelope rises.
 * Source: S. Dixon, "Onset detection revisited" (2006).
 */
export function findOnsets(samples: Float32Array, sampleRate: number): Onset[] {
  const { flux, centroid } = spectralFlux(samples, sampleRate);
  const reach = Math.max(1, Math.round((AROUND_SECONDS * sampleRate) / HOP));
  const gap = Math.max(1, Math.round((MIN_GAP_SECONDS * sampleRate) / HOP));
  const most = flux.reduce((a, b) => Math.max(a, b), 0);
  const peaks: number[] = [];
  for (let i = 0; i < flux.length; i += 1) {
    if (!isPeak(flux, i, gap) || flux[i]! < meanAround(flux, i, reach) + OVER * most) continue;
    peaks.push(i);
  }
  const found = peaks.map((frame) => ({
    ...beginOf(samples, frame * HOP, sampleRate),
    centroidHz: centroid[Math.min(frame + 2, centroid.length - 1)]!,
  }));
  const loudest = found.reduce((a, { peak }) => Math.max(a, peak), 0);
  return found
    .filter(
      ({ peak, at }, i) =>
        peak > QUIETEST * loudest && (i === 0 || at - found[i - 1]!.at >= MIN_GAP_SECONDS * sampleRate),
    )
    .map(({ at, peak, centroidHz }) => ({
      seconds: at / sampleRate,
      strength: Math.pow(peak / loudest, HEARD),
      centroidHz,
    }));
}

/**
 * How much louder each frame is than one a little before it, summed over the bands that rise; and the middle of its
 * spectrum. A band is compared with the loudest of itself and its neighbours, so that a tone with vibrato does not
 * count as an onset.
 * Source: S. Böck and G. Widmer, "Maximum Filter Vibrato Suppression for Onset Detection" (2013).
 */
function spectralFlux(samples: Float32Array, sampleRate: number): { flux: Float64Array; centroid: Float64Array } {
  const fft = new FFT(FRAMES);
  const out = fft.createComplexArray();
  const frame = new Float64Array(FRAMES);
  const count = Math.max(1, Math.ceil(samples.length / HOP));
  const flux = new Float64Array(count);
  const centroid = new Float64Array(count);
  const bands = bandEdges(sampleRate);
  const lag = Math.max(1, Math.round((LAG_SECONDS * sampleRate) / HOP));
  const recent = Array.from({ length: lag + 1 }, () => new Float64Array(bands.length));
  for (let i = 0; i < count; i += 1) {
    // The frame is centred on its hop, so that a rise shows where it is.
    const from = i * HOP - BINS;
    for (let k = 0; k < FRAMES; k += 1)
      frame[k] = (samples[from + k] ?? 0) * (0.5 - 0.5 * Math.cos((2 * Math.PI * k) / FRAMES));
    fft.realTransform(out, frame);
    centroid[i] = (middleBin(out) * sampleRate) / FRAMES;
    const now = recent[i % (lag + 1)]!;
    const before = recent[(i + 1) % (lag + 1)]!;
    for (let band = 0; band < bands.length; band += 1) now[band] = Math.log1p(PRESS * bandMagnitude(out, bands[band]!));
    for (let band = 0; band < bands.length; band += 1) {
      const rise = now[band]! - Math.max(before[band]!, before[band - 1] ?? 0, before[band + 1] ?? 0);
      if (rise > 0) flux[i] = flux[i]! + rise;
    }
  }
  return { flux, centroid };
}

/** First and last bin of each band, lowest first; bands that would share a bin are one. */
function bandEdges(sampleRate: number): (readonly [number, number])[] {
  const edges: (readonly [number, number])[] = [];
  const top = Math.min(BINS - 1, Math.floor((HIGHEST_HZ * FRAMES) / sampleRate));
  let from = Math.max(1, Math.round((LOWEST_HZ * FRAMES) / sampleRate));
  while (from <= top) {
    const to = Math.max(from, Math.round(from * Math.pow(2, 1 / PER_OCTAVE)) - 1);
    edges.push([from, Math.min(top, to)]);
    from = to + 1;
  }
  return edges;
}

function bandMagnitude(spectrum: ArrayLike<number>, [from, to]: readonly [number, number]): number {
  let sum = 0;
  for (let bin = from; bin <= to; bin += 1) sum += Math.hypot(spectrum[2 * bin]!, spectrum[2 * bin + 1]!);
  return sum / BINS;
}

function middleBin(spectrum: ArrayLike<number>): number {
  let weight = 0;
  let moment = 0;
  for (let bin = 1; bin < BINS; bin += 1) {
    const power = spectrum[2 * bin]! * spectrum[2 * bin]! + spectrum[2 * bin + 1]! * spectrum[2 * bin + 1]!;
    weight += power;
    moment += power * bin;
  }
  return weight > 0 ? moment / weight : 0;
}

function isPeak(flux: Float64Array, i: number, gap: number): boolean {
  for (let k = Math.max(0, i - gap); k <= Math.min(flux.length - 1, i + gap); k += 1) {
    if (flux[k]! > flux[i]! || (flux[k] === flux[i] && k < i)) return false;
  }
  return flux[i]! > 0;
}

function meanAround(flux: Float64Array, i: number, reach: number): number {
  const from = Math.max(0, i - reach);
  const to = Math.min(flux.length, i + reach + 1);
  let sum = 0;
  for (let k = from; k < to; k += 1) sum += flux[k]!;
  return sum / (to - from);
}

/** The sample at which the hit near `about` begins, and its peak. The level before it is subtracted. */
function beginOf(samples: Float32Array, about: number, sampleRate: number): { at: number; peak: number } {
  const from = Math.max(0, about - BACK);
  const to = Math.min(samples.length, about + Math.round(PEAK_SECONDS * sampleRate));
  const before = peakOf(samples, Math.max(0, from - BACK), from);
  const peak = peakOf(samples, from, to);
  const threshold = before < peak ? before + BEGUN * (peak - before) : BEGUN * peak;
  for (let at = from; at < to; at += 1) if (Math.abs(samples[at]!) > threshold) return { at, peak };
  return { at: about, peak };
}

function peakOf(samples: Float32Array, from: number, to: number): number {
  let peak = 0;
  for (let i = from; i < to; i += 1) if (Math.abs(samples[i]!) > peak) peak = Math.abs(samples[i]!);
  return peak;
}
