const PASSES = 3;

/**
 * Low-pass of three moving averages in series, nearly Gaussian in time, with linear phase: a delay of a whole number of
 * samples. Source: W. M. Wells, "Efficient synthesis of Gaussian filters by cascaded uniform filters" (1986).
 */
export class CascadedMovingAverage {
  /** Delay in samples. */
  readonly delay: number;
  private readonly rings: readonly Float64Array[];
  private readonly sums = new Float64Array(PASSES);
  private writeIndex = 0;

  /** @param halfHz frequency at which its gain is one half */
  constructor(halfHz: number, sampleRate: number) {
    const deviation = (Math.sqrt(2 * Math.LN2) / (2 * Math.PI * halfHz)) * sampleRate;
    const length = Math.max(3, 2 * Math.round((Math.sqrt((12 * deviation * deviation) / PASSES + 1) - 1) / 2) + 1);
    this.rings = Array.from({ length: PASSES }, () => new Float64Array(length));
    this.delay = (PASSES * (length - 1)) / 2;
  }

  clear(): void {
    for (const ring of this.rings) ring.fill(0);
    this.sums.fill(0);
    this.writeIndex = 0;
  }

  process(from: Float64Array, to: Float64Array, n: number): void {
    const first = this.rings[0]!;
    const second = this.rings[1]!;
    const third = this.rings[2]!;
    const length = first.length;
    const scale = 1 / length;
    let a = this.sums[0]!;
    let b = this.sums[1]!;
    let c = this.sums[2]!;
    let place = this.writeIndex;
    for (let i = 0; i < n; i += 1) {
      const x = from[i]!;
      a += x - first[place]!;
      first[place] = x;
      const y = a * scale;
      b += y - second[place]!;
      second[place] = y;
      const z = b * scale;
      c += z - third[place]!;
      third[place] = z;
      to[i] = c * scale;
      place += 1;
      if (place === length) place = 0;
    }
    this.sums[0] = a;
    this.sums[1] = b;
    this.sums[2] = c;
    this.writeIndex = place;
  }
}
