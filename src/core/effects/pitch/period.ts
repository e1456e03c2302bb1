import type { SincRings } from '../../dsp/sincRings';

/** Pitches of voices that are looked for. */
const LOWEST_HZ = 60;
const HIGHEST_HZ = 800;
/** Samples are taken together at first, to about this rate; then all are compared, so many steps of it round the best. */
const COARSE_RATE = 12_000;
const NEAR = 1;
/** Likeness from which a sound has a pitch, and by how much a shorter period may be less alike than the best. */
const VOICED = 0.7;
const ALMOST = 0.93;
/** Quieter than this, -80 dBFS, nothing has. */
const QUIET_POWER = 1e-8;

/**
 * Finds how long a sound takes to come again, by its likeness with itself.
 * Source: P. Boersma, "Accurate short-term analysis of the fundamental frequency and the harmonics-to-noise ratio of a sampled sound" (1993).
 */
export class PeriodFinder {
  readonly longest: number;
  private readonly shortest: number;
  private readonly together: number;
  private readonly field: Float32Array;
  private readonly alike: Float32Array;
  /** Samples taken together, and the sums of their squares from the first on. */
  private readonly coarse: Float32Array;
  private readonly powers: Float64Array;

  constructor(sampleRate: number) {
    this.longest = Math.ceil(sampleRate / LOWEST_HZ);
    this.shortest = Math.floor(sampleRate / HIGHEST_HZ);
    this.together = Math.max(1, Math.round(sampleRate / COARSE_RATE));
    this.field = new Float32Array(2 * this.longest + NEAR * this.together + 2);
    this.alike = new Float32Array(this.longest + 2);
    this.coarse = new Float32Array(Math.floor(this.field.length / this.together));
    this.powers = new Float64Array(this.coarse.length + 1);
  }

  /** @param until place of the last sample that is there  @returns period in samples, 0 where there is no pitch */
  find(rings: SincRings, until: number): number {
    const { field, coarse, powers, alike } = this;
    const from = until - field.length + 1;
    for (let i = 0; i < field.length; i += 1) field[i] = rings.monoAt(from + i);
    for (let i = 0; i < coarse.length; i += 1) {
      let sum = 0;
      for (let k = this.together * i; k < this.together * (i + 1); k += 1) sum += field[k]!;
      coarse[i] = sum / this.together;
      powers[i + 1] = powers[i]! + coarse[i]! * coarse[i]!;
    }
    if (powers[coarse.length]! < QUIET_POWER * coarse.length) return 0;
    const first = Math.max(2, Math.floor(this.shortest / this.together));
    const last = Math.floor(this.longest / this.together) - 1;
    let most = 0;
    for (let lag = first; lag <= last; lag += 1) {
      const here = this.coarseLikeness(lag);
      alike[lag] = here;
      if (here > most) most = here;
    }
    if (most < VOICED) return 0;
    // The shortest hill that is almost as high: two periods are as alike as one.
    for (let lag = first + 1; lag < last; lag += 1) {
      const a = alike[lag - 1]!;
      const b = alike[lag]!;
      const c = alike[lag + 1]!;
      // Its top lies between two places: a parabola tells how high.
      const top = b >= a && b >= c ? b - (0.125 * (a - c) * (a - c)) / (a - 2 * b + c - 1e-9) : 0;
      if (top >= ALMOST * most) return this.refined(this.together * lag);
    }
    return 0;
  }

  private coarseLikeness(lag: number): number {
    const { coarse, powers } = this;
    const n = Math.floor(this.longest / this.together);
    let product = 0;
    for (let i = 0; i < n; i += 1) product += coarse[i]! * coarse[i + lag]!;
    return product / Math.sqrt((powers[n]! + 1e-12) * (powers[n + lag]! - powers[lag]! + 1e-12));
  }

  /** The top of a parabola through the best of the lags nearby and its neighbours. */
  private refined(near: number): number {
    const { shortest, longest } = this;
    let best = near;
    let most = -1;
    const low = Math.max(shortest, near - NEAR * this.together);
    const high = Math.min(longest, near + NEAR * this.together);
    for (let lag = low; lag <= high; lag += 1) {
      const here = this.likeness(lag);
      this.alike[lag] = here;
      if (here > most) {
        most = here;
        best = lag;
      }
    }
    if (most < VOICED) return 0;
    if (best === low || best === high) return best;
    const before = this.alike[best - 1]!;
    const after = this.alike[best + 1]!;
    return best + (0.5 * (before - after)) / (before - 2 * most + after);
  }

  private likeness(lag: number): number {
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
