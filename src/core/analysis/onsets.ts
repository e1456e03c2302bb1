import FFT from 'fft.js';

export interface Onset {
  readonly seconds: number;
  /** Peak of the hit against the loudest of them, 0-1. */
  readonly strength: number;
  /** Middle of its spectrum: low for a drum, high for a snare or a hat. */
  readonly centroidHz: number;
}

const FRAMES = 1024;
const HOP = 256;
const BINS = FRAMES / 2;
/** Magnitudes are counted as log(1 + PRESS * m), so that quiet hits count too. */
const PRESS = 200;
/** A rise must stand this far over the mean of those around it, as a share of the highest of all. */
const OVER = 0.08;
const AROUND_SECONDS = 0.12;
const LEAST_GAP_SECONDS = 0.05;
/** The hit begins where its envelope first comes to this share of its peak. */
const BEGUN = 0.12;
const PEAK_SECONDS = 0.04;
/** Hits this far under the loudest are what lies between hits. */
const QUIETEST = 0.01;

/**
 * Where hits begin in a sound: peaks of the spectral flux over a moving mean, each then set to where its envelope rises.
 * Source: S. Dixon, "Onset detection revisited" (2006).
 */
export function findOnsets(samples: Float32Array, sampleRate: number): Onset[] {
  const { flux, centroid } = spectralFlux(samples, sampleRate);
  const reach = Math.max(1, Math.round((AROUND_SECONDS * sampleRate) / HOP));
  const gap = Math.max(1, Math.round((LEAST_GAP_SECONDS * sampleRate) / HOP));
  const most = flux.reduce((a, b) => Math.max(a, b), 0);
  const peaks: number[] = [];
  for (let i = 0; i < flux.length; i += 1) {
    if (!isPeak(flux, i, gap) || flux[i]! < meanAround(flux, i, reach) + OVER * most) continue;
    peaks.push(i);
  }
  const found = peaks.map((frame) => ({ ...beginOf(samples, frame * HOP, sampleRate), centroidHz: centroid[Math.min(frame + 2, centroid.length - 1)]! }));
  const loudest = found.reduce((a, { peak }) => Math.max(a, peak), 0);
  return found
    .filter(({ peak, at }, i) => peak > QUIETEST * loudest && (i === 0 || at - found[i - 1]!.at >= LEAST_GAP_SECONDS * sampleRate))
    .map(({ at, peak, centroidHz }) => ({ seconds: at / sampleRate, strength: peak / loudest, centroidHz }));
}

/** How much louder each frame is than the one before, summed over the bins that rise; and the middle of its spectrum. */
function spectralFlux(samples: Float32Array, sampleRate: number): { flux: Float64Array; centroid: Float64Array } {
  const fft = new FFT(FRAMES);
  const out = fft.createComplexArray();
  const frame = new Float64Array(FRAMES);
  const count = Math.max(1, Math.ceil(samples.length / HOP));
  const flux = new Float64Array(count);
  const centroid = new Float64Array(count);
  const before = new Float64Array(BINS);
  for (let i = 0; i < count; i += 1) {
    // The frame is centred on its hop, so that a rise shows where it is.
    const from = i * HOP - BINS;
    for (let k = 0; k < FRAMES; k += 1) frame[k] = (samples[from + k] ?? 0) * (0.5 - 0.5 * Math.cos((2 * Math.PI * k) / FRAMES));
    fft.realTransform(out, frame);
    let sum = 0;
    let weight = 0;
    let moment = 0;
    for (let bin = 1; bin < BINS; bin += 1) {
      const magnitude = Math.hypot(out[2 * bin]!, out[2 * bin + 1]!) / BINS;
      const pressed = Math.log1p(PRESS * magnitude);
      if (pressed > before[bin]!) sum += pressed - before[bin]!;
      before[bin] = pressed;
      weight += magnitude * magnitude;
      moment += magnitude * magnitude * bin;
    }
    flux[i] = sum;
    centroid[i] = weight > 0 ? ((moment / weight) * sampleRate) / FRAMES : 0;
  }
  return { flux, centroid };
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

/** The sample at which the hit near `about` begins, and its peak. What rang before is taken off. */
function beginOf(samples: Float32Array, about: number, sampleRate: number): { at: number; peak: number } {
  const from = Math.max(0, about - FRAMES);
  const to = Math.min(samples.length, about + Math.round(PEAK_SECONDS * sampleRate));
  const before = peakOf(samples, Math.max(0, from - FRAMES), from);
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
