import { HEAD_RADIUS, SPEED_OF_SOUND } from './geometry';

/** Degrees between two rows of the table, and how many rows there are from 0 to 180. */
const STEP_DEGREES = 2.5;
const ROWS = 180 / STEP_DEGREES + 1;
/** Length of one half of a symmetric filter. */
const HALF_SECONDS = 0.0006;
/** Terms of the series beyond the normalised frequency. */
const TERMS_BEYOND = 24;
/** The series ends at a term this small. */
const NEGLIGIBLE = 1e-30;
/** Below this normalised frequency the sphere has no effect. */
const MIN_MU = 0.02;

/**
 * Pressure at the surface of a rigid sphere from a far source, relative to that at its centre without the sphere.
 * Source: R. O. Duda and W. L. Martens, "Range dependence of the response of a spherical head model" (1998), for a
 * source far away.
 * @param incidence angle between the ear and the source in radians, 0 to pi
 * @param hz frequency, 0 or more
 */
export function sphereGain(incidence: number, hz: number): number {
  const mu = (2 * Math.PI * hz * HEAD_RADIUS) / SPEED_OF_SOUND;
  return mu < MIN_MU ? 1 : magnitudeOf(sphericalTerms(mu), Math.cos(incidence));
}

/** (2 m + 1) (-i)^(m - 1) / (mu^2 h'_m(mu)) for all terms of the series: real and imaginary part in turn. */
function sphericalTerms(mu: number): Float64Array {
  const count = Math.ceil(mu + TERMS_BEYOND);
  const terms = new Float64Array(2 * count);
  // Spherical Hankel functions of the first kind by their recurrence: h_-1 = e^(i mu) / mu, h_0 = e^(i mu) / (i mu).
  const inverse = 1 / mu;
  let beforeRe = Math.cos(mu) * inverse;
  let beforeIm = Math.sin(mu) * inverse;
  let re = beforeIm;
  let im = -beforeRe;
  for (let m = 0; m < count; m += 1) {
    const slopeRe = beforeRe - (m + 1) * inverse * re;
    const slopeIm = beforeIm - (m + 1) * inverse * im;
    const scale = ((2 * m + 1) * inverse * inverse) / (slopeRe * slopeRe + slopeIm * slopeIm);
    if (scale < NEGLIGIBLE) break;
    const a = scale * slopeRe;
    const b = -scale * slopeIm;
    // Times (-i)^(m - 1): i, 1, -i, -1 in turn.
    const turn = m & 3;
    terms[2 * m] = turn === 0 ? -b : turn === 1 ? a : turn === 2 ? b : -a;
    terms[2 * m + 1] = turn === 0 ? a : turn === 1 ? b : turn === 2 ? -a : -b;
    const nextRe = (2 * m + 1) * inverse * re - beforeRe;
    const nextIm = (2 * m + 1) * inverse * im - beforeIm;
    beforeRe = re;
    beforeIm = im;
    re = nextRe;
    im = nextIm;
  }
  return terms;
}

/** Size of the series, with Legendre polynomials by their recurrence. */
function magnitudeOf(terms: Float64Array, cosine: number): number {
  let before = 0;
  let legendre = 1;
  let re = 0;
  let im = 0;
  for (let m = 0; 2 * m < terms.length; m += 1) {
    re += legendre * terms[2 * m]!;
    im += legendre * terms[2 * m + 1]!;
    const next = ((2 * m + 1) * cosine * legendre - m * before) / (m + 1);
    before = legendre;
    legendre = next;
  }
  return Math.sqrt(re * re + im * im);
}

/**
 * Symmetric filters of a head for angles from 0 to 180 degrees: they have zero phase, so that the interaural time
 * difference is unchanged. A row is computed when it is first used, in about a tenth of a step: effects are created and
 * run on the audio thread.
 */
export class SphereFilters {
  /** Taps on each side of the middle one. */
  readonly half: number;
  private readonly bins: number;
  private readonly terms: readonly Float64Array[];
  private readonly cosines: Float64Array;
  private readonly taps: Float64Array;
  private readonly known = new Uint8Array(ROWS);
  private readonly gains: Float64Array;

  constructor(sampleRate: number) {
    this.half = Math.round(HALF_SECONDS * sampleRate);
    const bins = 2 * this.half;
    this.bins = bins;
    const muOf = (k: number): number => (Math.PI * k * sampleRate * HEAD_RADIUS) / (bins * SPEED_OF_SOUND);
    this.terms = Array.from({ length: bins }, (_, k) => sphericalTerms(muOf(k + 1)));
    this.cosines = Float64Array.from({ length: 2 * bins }, (_, i) => Math.cos((Math.PI * i) / bins));
    this.taps = new Float64Array(ROWS * (this.half + 1));
    this.gains = new Float64Array(bins + 1).fill(1);
  }

  /**
   * Writes the filter for any angle, by linear interpolation of two rows.
   * @param incidence in radians, 0 to pi
   * @param to half + 1 taps, from the middle outwards
   */
  at(incidence: number, to: Float64Array): void {
    const { half, taps } = this;
    const place = ((incidence < 0 ? 0 : incidence) * 180) / (Math.PI * STEP_DEGREES);
    const first = Math.min(ROWS - 2, Math.floor(place));
    const share = place - first < 1 ? place - first : 1;
    this.computeRow(first);
    this.computeRow(first + 1);
    const low = first * (half + 1);
    for (let n = 0; n <= half; n += 1) {
      const a = taps[low + n]!;
      to[n] = a + share * (taps[low + half + 1 + n]! - a);
    }
  }

  /** Computes a row: the series, and its cosine transform. */
  private computeRow(row: number): void {
    if (this.known[row] === 1) return;
    const { bins, half, gains, terms, cosines, taps } = this;
    const cosine = Math.cos((row * STEP_DEGREES * Math.PI) / 180);
    for (let k = 1; k <= bins; k += 1) gains[k] = magnitudeOf(terms[k - 1]!, cosine);
    for (let n = 0; n <= half; n += 1) {
      let sum = 0.5 * (1 + (n & 1 ? -gains[bins]! : gains[bins]!));
      let turn = 0;
      for (let k = 1; k < bins; k += 1) {
        turn += n;
        if (turn >= 2 * bins) turn -= 2 * bins;
        sum += gains[k]! * cosines[turn]!;
      }
      taps[row * (half + 1) + n] = sum / bins;
    }
    this.known[row] = 1;
  }
}

const filters = new Map<number, SphereFilters>();

/** The filters for a sample rate, which all placers share. */
export function sphereFilters(sampleRate: number): SphereFilters {
  const known = filters.get(sampleRate) ?? new SphereFilters(sampleRate);
  filters.set(sampleRate, known);
  return known;
}
