import { DENORMAL_GUARD } from './denormals';

/**
 * Two-pole state-variable filter in its trapezoidal form, stable while its cutoff moves.
 * Source: Andrew Simper, "Solving the continuous SVF equations using trapezoidal integration" (2013).
 */
export interface Tuning {
  /** tan(pi f / fs). */
  readonly g: number;
  /** Damping, 1 / Q. */
  readonly k: number;
}

export function tuning(cutoffHz: number, q: number, sampleRate: number): Tuning {
  const limited = Math.min(cutoffHz, sampleRate * 0.49);
  return { g: Math.tan((Math.PI * limited) / sampleRate), k: 1 / q };
}

/**
 * Highest gain of a two-pole low-pass or high-pass at any frequency: `Q / sqrt(1 - 1 / (4 Q^2))`, and 1 where it does
 * not ring.
 */
export const resonantPeak = (q: number): number => (q * q <= 0.5 ? 1 : q / Math.sqrt(1 - 1 / (4 * q * q)));

/** Coefficients of one filter, recomputed only when its parameters change, without allocation. */
export class KeptTuning implements Tuning {
  g = 0;
  readonly k: number;
  private hz = Number.NaN;

  constructor(
    q: number,
    private readonly sampleRate: number,
  ) {
    this.k = 1 / q;
  }

  at(cutoffHz: number): Tuning {
    if (cutoffHz !== this.hz) {
      this.hz = cutoffHz;
      this.g = tuning(cutoffHz, 1, this.sampleRate).g;
    }
    return this;
  }
}

/** One channel. Output is `direct * x + band * bp + low * lp`, with the weights ramped linearly over the block. */
export class StateVariable {
  /** The two states, open to loops that run the filter themselves. */
  s1 = 0;
  s2 = 0;
  private g = -1;
  private k = 1;
  private direct = 1;
  private band = 0;
  private low = 0;

  clear(): void {
    this.s1 = 0;
    this.s2 = 0;
    this.g = -1;
  }

  /**
   * Filters `n` samples in place, ramping from the last call's settings to these. Denormals are flushed once per block.
   */
  process(io: Float64Array, n: number, g: number, k: number, direct: number, band: number, low: number): void {
    if (this.g < 0 || this.isSteadyAt(g, k, direct, band, low)) this.processSteady(io, n, g, k, direct, band, low);
    else this.move(io, n, g, k, direct, band, low);
    this.s1 = this.s1 + DENORMAL_GUARD - DENORMAL_GUARD;
    this.s2 = this.s2 + DENORMAL_GUARD - DENORMAL_GUARD;
    this.g = g;
    this.k = k;
    this.direct = direct;
    this.band = band;
    this.low = low;
  }

  private processSteady(
    io: Float64Array,
    n: number,
    g: number,
    k: number,
    direct: number,
    band: number,
    low: number,
  ): void {
    const a1 = 1 / (1 + g * (g + k));
    const a2 = g * a1;
    let { s1, s2 } = this;
    for (let i = 0; i < n; i += 1) {
      const x = io[i]!;
      const v1 = a1 * s1 + a2 * (x - s2);
      const v2 = s2 + g * v1;
      s1 = v1 + v1 - s1;
      s2 = v2 + v2 - s2;
      io[i] = direct * x + band * v1 + low * v2;
    }
    this.s1 = s1;
    this.s2 = s2;
  }

  private move(io: Float64Array, n: number, g: number, k: number, direct: number, band: number, low: number): void {
    let { g: g0, k: k0, direct: d, band: b, low: l, s1, s2 } = this;
    const gStep = (g - g0) / n;
    const kStep = (k - k0) / n;
    const dStep = (direct - d) / n;
    const bStep = (band - b) / n;
    const lStep = (low - l) / n;
    for (let i = 0; i < n; i += 1) {
      g0 += gStep;
      k0 += kStep;
      d += dStep;
      b += bStep;
      l += lStep;
      const x = io[i]!;
      const v1 = (s1 + g0 * (x - s2)) / (1 + g0 * (g0 + k0));
      const v2 = s2 + g0 * v1;
      s1 = v1 + v1 - s1;
      s2 = v2 + v2 - s2;
      io[i] = d * x + b * v1 + l * v2;
    }
    this.s1 = s1;
    this.s2 = s2;
  }

  /** True when the last call ended on these settings, so that nothing is ramped. */
  isSteadyAt(g: number, k: number, direct: number, band: number, low: number): boolean {
    return this.g === g && this.k === k && this.direct === direct && this.band === band && this.low === low;
  }
}
