/** Peaks are searched within this share of the spacing of harmonics. */
const REACH = 0.4;
/** Share of its error by which each harmonic that is found corrects the estimate of the spacing. */
const FOLLOWED = 0.3;
/**
 * A harmonic so far below both of its neighbours, in natural logarithms (12 dB), is not one: the pitch was estimated an
 * octave too low.
 */
const GAP = 1.4;
/** A bin that is so far over those two away, in natural logarithms (9 dB), is the middle of a tone in a Hann window. */
const PROMINENT = 1;
/**
 * Limit of the slope at a maximum or minimum, as a multiple of the flatter side's slope, so that it is level where one
 * side is.
 */
const STEEPEST = 3;
/** Tones so far below the loudest (70 dB) are ignored. */
const FAINT = 8;
/** Least share of the energy in tones for a sound to count as made of tones alone. */
const TONAL_SHARE = 0.9;

/**
 * The line through the harmonics of a tone, in logarithms: exact at each of them, and between them a curve that never
 * swings beyond its neighbours but at tops and bottoms. Source of the curve: F. N. Fritsch and R. E. Carlson, "Monotone
 * Piecewise Cubic Interpolation" (1980).
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
   * @param levels natural logarithms of the magnitudes of all bins
   * @param spacing bins from harmonic to harmonic, two or more
   * @param to receives the envelope, one value per bin
   * @returns false when there are too few harmonics
   */
  find(levels: Float64Array, spacing: number, to: Float64Array): boolean {
    this.collect(levels, spacing);
    this.dropGaps();
    if (this.count < 4) return false;
    this.limitSlopes();
    this.draw(to);
    return true;
  }

  /**
   * The line through all tones, harmonic or not; constant before the first and after the last.
   * @param magnitudes of all bins
   * @param levels their natural logarithms
   * @returns number of tones; 0 where the sound is not made of tones alone
   */
  findTones(magnitudes: Float64Array, levels: Float64Array): number {
    const { places, heights, bins } = this;
    let top = levels[0]!;
    for (let k = 1; k < bins; k += 1) if (levels[k]! > top) top = levels[k]!;
    let count = 0;
    let tonal = 0;
    let all = 0;
    let counted = -1;
    for (let k = 2; k < bins - 2; k += 1) {
      const b = levels[k]!;
      all += magnitudes[k]! * magnitudes[k]!;
      const a = levels[k - 1]!;
      const c = levels[k + 1]!;
      const beside = levels[k - 2]! > levels[k + 2]! ? levels[k - 2]! : levels[k + 2]!;
      if (b < top - FAINT || b <= a || b < c || b < beside + PROMINENT) continue;
      const off = (0.5 * (a - c)) / (a - 2 * b + c);
      places[count] = k + off;
      heights[count] = b - 0.25 * (a - c) * off;
      count += 1;
      for (let j = Math.max(counted + 1, k - 2); j <= k + 2; j += 1) tonal += magnitudes[j]! * magnitudes[j]!;
      counted = k + 2;
    }
    this.count = count;
    return tonal > TONAL_SHARE * all ? count : 0;
  }

  /** Interpolates the line through the tones that were found last. */
  drawTones(to: Float64Array): void {
    this.limitSlopes();
    this.draw(to);
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
      // The spacing is ten times as precise from the tenth harmonic as from the first.
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

  private limitSlopes(): void {
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
      // The top of a formant is between two harmonics: there the curve is a parabola, whose top may be over both.
      slopes[i] =
        before * after <= 0
          ? clampTo((before * right + after * left) / (left + right), STEEPEST * smaller(before, after))
          : (near + far) / (near / before + far / after);
    }
  }

  private draw(to: Float64Array): void {
    const { places, heights, slopes, count, bins } = this;
    if (count === 1) {
      to.fill(heights[0]!, 0, bins);
      return;
    }
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

function smaller(a: number, b: number): number {
  const first = a < 0 ? -a : a;
  const second = b < 0 ? -b : b;
  return first < second ? first : second;
}

const clampTo = (x: number, most: number): number => (x > most ? most : x < -most ? -most : x);
