/**
 * Peak limiter of a stereo pair with instant attack and slow release. Below the ceiling it changes no bit.
 */
export class PeakGuard {
  private held = 1;
  private readonly release: number;
  /** Lowest gain since `takeLowest` was last called; 1 when there was no reduction. */
  private lowest = 1;

  constructor(
    private readonly ceiling: number,
    releaseSeconds: number,
    sampleRate: number,
  ) {
    this.release = 1 - Math.exp(-1 / (releaseSeconds * sampleRate));
  }

  clear(): void {
    this.held = 1;
    this.lowest = 1;
  }

  /** True when a block with this peak would pass unchanged. */
  passes(peak: number): boolean {
    return this.held === 1 && peak <= this.ceiling;
  }

  takeLowest(): number {
    const value = this.lowest;
    this.lowest = 1;
    return value;
  }

  process(left: Float64Array, right: Float64Array, n: number): void {
    const { ceiling, release } = this;
    let held = this.held;
    let lowest = this.lowest;
    for (let i = 0; i < n; i += 1) {
      const l = left[i]!;
      const r = right[i]!;
      const a = l < 0 ? -l : l;
      const b = r < 0 ? -r : r;
      const peak = a > b ? a : b;
      if (peak * held > ceiling) {
        held = ceiling / peak;
        if (held < lowest) lowest = held;
      }
      if (held !== 1) {
        left[i] = l * held;
        right[i] = r * held;
        held += (1 - held) * release;
        if (held > 0.999999) held = 1;
      }
    }
    this.held = held;
    this.lowest = lowest;
  }
}
