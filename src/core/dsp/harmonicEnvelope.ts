/** Peaks are looked for within this share of the distance of two harmonics. */
const REACH = 0.4;
/** By so much of what it is off, each harmonic that is found moves the estimate of the distance. */
const FOLLOWED = 0.3;
/** A harmonic so far below both of its neighbours, in natural logarithms (12 dB), is none: the pitch was taken an octave too low. */
const GAP = 1.4;

/**
 * The line through the harmonics of a tone, in logarithms: exact at each of them, and between them a curve that never swings beyond its
 * neighbours.
 * Source of the curve: F. N. Fritsch and R. E. Carlson, "Monotone Piecewise Cubic Interpolation" (1980).
 */
export class HarmonicEnvelope {
  private readonly places: Float64Array;
  private readonly heights: Float64Array;
  private readonly slopes: Float64Array;
  private count = 0;

  /** @param bins from 0 to half the rate */
  constructor(private readonly bins: number) {
    this.places = new Float64Array(bins);
    this.heights = new Float64Array(bins);
    this.slopes = new Float64Array(bins);
  }

  /**
   * @param levels natural logarithms of the magnitudes of all bins  @param spacing bins from harmonic to harmonic, two or more
   * @param to where the envelope goes, one figure a bin  @returns false when there are not enough harmonics to tell
   */
  find(levels: Float64Array, spacing: number, to: Float64Array): boolean {
    this.collect(levels, spacing);
    this.dropGaps();
    if (this.count < 4) return false;
    this.lean();
    this.draw(to);
    return true;
  }

  private collect(levels: Float64Array, spacing: number): void {
    const { places, heights, bins } = this;
    let count = 0;
    let distance = spacing;
    for (
      let n = 1, centre = distance;
      centre < bins - 2;
      n += 1, centre = count > 0 ? places[count - 1]! + distance : n * distance
    ) {
      const reach = Math.max(1, REACH * distance);
      const from = Math.max(1, Math.round(centre - reach));
      const until = Math.min(bins - 2, Math.round(centre + reach));
      let best = from;
      for (let k = from + 1; k <= until; k += 1) if (levels[k]! > levels[best]!) best = k;
      const a = levels[best - 1]!;
      const b = levels[best]!;
      const c = levels[best + 1]!;
      const isPeak = b > a && b >= c;
      const off = isPeak ? (0.5 * (a - c)) / (a - 2 * b + c) : 0;
      places[count] = isPeak ? best + off : centre;
      heights[count] = isPeak ? b - 0.25 * (a - c) * off : levels[Math.min(bins - 1, Math.round(centre))]!;
      // The tenth harmonic tells the distance ten times as well as the first.
      if (isPeak) distance += FOLLOWED * (places[count]! / n - distance);
      count += 1;
    }
    this.count = count;
  }

  private dropGaps(): void {
    const { places, heights } = this;
    let kept = 0;
    for (let i = 0; i < this.count; i += 1) {
      const before = kept > 0 ? heights[kept - 1]! : heights[i]!;
      const after = i + 1 < this.count ? heights[i + 1]! : heights[i]!;
      if (heights[i]! < before - GAP && heights[i]! < after - GAP) continue;
      places[kept] = places[i]!;
      heights[kept] = heights[i]!;
      kept += 1;
    }
    this.count = kept;
  }

  private lean(): void {
    const { places, heights, slopes, count } = this;
    slopes[0] = 0;
    slopes[count - 1] = 0;
    for (let i = 1; i < count - 1; i += 1) {
      const left = places[i]! - places[i - 1]!;
      const right = places[i + 1]! - places[i]!;
      const before = (heights[i]! - heights[i - 1]!) / left;
      const after = (heights[i + 1]! - heights[i]!) / right;
      const near = 2 * right + left;
      const far = right + 2 * left;
      slopes[i] = before * after <= 0 ? 0 : (near + far) / (near / before + far / after);
    }
  }

  private draw(to: Float64Array): void {
    const { places, heights, slopes, count, bins } = this;
    let i = 0;
    for (let k = 0; k < bins; k += 1) {
      while (i < count - 2 && places[i + 1]! <= k) i += 1;
      const width = places[i + 1]! - places[i]!;
      const at = (k - places[i]!) / width;
      const t = at < 0 ? 0 : at > 1 ? 1 : at;
      const s = 1 - t;
      to[k] =
        s * s * (1 + 2 * t) * heights[i]! +
        t * s * s * width * slopes[i]! +
        t * t * (3 - 2 * t) * heights[i + 1]! -
        t * t * s * width * slopes[i + 1]!;
    }
  }
}
