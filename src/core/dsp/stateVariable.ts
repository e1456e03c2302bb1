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

/** One channel. Output is `direct * x + band * bp + low * lp`, the weights moving in a straight line over the run. */
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

  /** Filters `n` samples in place, moving from the last call's settings to these. */
  process(io: Float64Array, n: number, g: number, k: number, direct: number, band: number, low: number): void {
    const start = this.g < 0;
    let g0 = start ? g : this.g;
    let k0 = start ? k : this.k;
    let d = start ? direct : this.direct;
    let b = start ? band : this.band;
    let l = start ? low : this.low;
    const still = g0 === g && k0 === k && d === direct && b === band && l === low;
    const gStep = (g - g0) / n;
    const kStep = (k - k0) / n;
    const dStep = (direct - d) / n;
    const bStep = (band - b) / n;
    const lStep = (low - l) / n;
    let s1 = this.s1;
    let s2 = this.s2;
    let a1 = 1 / (1 + g0 * (g0 + k0));
    for (let i = 0; i < n; i += 1) {
      if (!still) {
        g0 += gStep;
        k0 += kStep;
        d += dStep;
        b += bStep;
        l += lStep;
        a1 = 1 / (1 + g0 * (g0 + k0));
      }
      const x = io[i]!;
      const v3 = x - s2;
      const v1 = a1 * (s1 + g0 * v3);
      const v2 = s2 + g0 * v1;
      s1 = 2 * v1 - s1 + 1e-15 - 1e-15;
      s2 = 2 * v2 - s2 + 1e-15 - 1e-15;
      io[i] = d * x + b * v1 + l * v2;
    }
    this.s1 = s1;
    this.s2 = s2;
    this.g = g;
    this.k = k;
    this.direct = direct;
    this.band = band;
    this.low = low;
  }

  /** True when the last call ended on these settings, so that nothing has to move. */
  standsAt(g: number, k: number, direct: number, band: number, low: number): boolean {
    return this.g === g && this.k === k && this.direct === direct && this.band === band && this.low === low;
  }
}
