/** Range of detected pitches. */
const LOWEST_HZ = 60;
const HIGHEST_HZ = 800;
/**
 * The first search runs decimated to about this rate; the second at the full rate, within this many decimated lags of
 * the first.
 */
const COARSE_RATE = 12_000;
const NEAR = 1;
/**
 * Normalised autocorrelation from which a sound counts as pitched, and the share of the best peak that a shorter period
 * must reach.
 */
const MIN_VOICED_CORRELATION = 0.7;
const MIN_SHARE_OF_BEST = 0.93;
/** Below this power, -80 dBFS, nothing counts as pitched. */
const SILENCE_POWER = 1e-8;

/** Both sides of a sound added, at an integer position. */
export interface MonoSource {
  monoAt(position: number): number;
}

/**
 * Detects the period of a sound by normalised autocorrelation.
 * Source: P. Boersma, "Accurate short-term analysis of the fundamental frequency and the harmonics-to-noise ratio of a
 * sampled sound" (1993).
 */
export class PeriodDetector {
  readonly longest: number;
  private readonly shortest: number;
  private readonly decimation: number;
  private readonly field: Float32Array;
  private readonly correlations: Float32Array;
  /** The decimated samples, and the running sums of their squares. */
  private readonly coarse: Float32Array;
  private readonly powers: Float64Array;

  constructor(sampleRate: number) {
    this.longest = Math.ceil(sampleRate / LOWEST_HZ);
    this.shortest = Math.floor(sampleRate / HIGHEST_HZ);
    this.decimation = Math.max(1, Math.round(sampleRate / COARSE_RATE));
    this.field = new Float32Array(2 * this.longest + NEAR * this.decimation + 2);
    this.correlations = new Float32Array(this.longest + 2);
    this.coarse = new Float32Array(Math.floor(this.field.length / this.decimation));
    this.powers = new Float64Array(this.coarse.length + 1);
  }

  /** @param until index of the newest sample  @returns period in samples, 0 without a pitch */
  detect(source: MonoSource, until: number): number {
    const { field, coarse, powers, correlations } = this;
    const from = until - field.length + 1;
    for (let i = 0; i < field.length; i += 1) field[i] = source.monoAt(from + i);
    for (let i = 0; i < coarse.length; i += 1) {
      let sum = 0;
      for (let k = this.decimation * i; k < this.decimation * (i + 1); k += 1) sum += field[k]!;
      coarse[i] = sum / this.decimation;
      powers[i + 1] = powers[i]! + coarse[i]! * coarse[i]!;
    }
    if (powers[coarse.length]! < SILENCE_POWER * coarse.length) return 0;
    const first = Math.max(2, Math.floor(this.shortest / this.decimation));
    const last = Math.floor(this.longest / this.decimation) - 1;
    let most = 0;
    for (let lag = first; lag <= last; lag += 1) {
      const here = this.coarseCorrelationAt(lag);
      correlations[lag] = here;
      if (here > most) most = here;
    }
    if (most < MIN_VOICED_CORRELATION) return 0;
    // The shortest lag with nearly the best correlation: multiples of the period correlate as well as the period.
    for (let lag = first + 1; lag < last; lag += 1) {
      const a = correlations[lag - 1]!;
      const b = correlations[lag]!;
      const c = correlations[lag + 1]!;
      // The peak is between two lags: its height by a parabola.
      const top = b >= a && b >= c ? b - (0.125 * (a - c) * (a - c)) / (a - 2 * b + c - 1e-9) : 0;
      if (top >= MIN_SHARE_OF_BEST * most) return this.refined(this.decimation * lag);
    }
    return 0;
  }

  private coarseCorrelationAt(lag: number): number {
    const { coarse, powers } = this;
    const n = Math.floor(this.longest / this.decimation);
    let product = 0;
    for (let i = 0; i < n; i += 1) product += coarse[i]! * coarse[i + lag]!;
    return product / Math.sqrt((powers[n]! + 1e-12) * (powers[n + lag]! - powers[lag]! + 1e-12));
  }

  /** Lag of the best correlation near a lag, interpolated by a parabola. */
  private refined(near: number): number {
    const { shortest, longest } = this;
    let best = near;
    let most = -1;
    const low = Math.max(shortest, near - NEAR * this.decimation);
    const high = Math.min(longest, near + NEAR * this.decimation);
    for (let lag = low; lag <= high; lag += 1) {
      const here = this.correlationAt(lag);
      this.correlations[lag] = here;
      if (here > most) {
        most = here;
        best = lag;
      }
    }
    if (most < MIN_VOICED_CORRELATION) return 0;
    if (best === low || best === high) return best;
    const before = this.correlations[best - 1]!;
    const after = this.correlations[best + 1]!;
    return best + (0.5 * (before - after)) / (before - 2 * most + after);
  }

  private correlationAt(lag: number): number {
    const { field, longest } = this;
    let product = 0;
    let here = 1e-12;
    let there = 1e-12;
    for (let i = 0; i < longest; i += 1) {
      const a = field[i]!;
      const b = field[i + lag]!;
      product += a * b;
      here += a * a;
      there += b * b;
    }
    return product / Math.sqrt(here * there);
  }
}
