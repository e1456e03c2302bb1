import {
  set,
  resonance,
  sinSquared,
  valueAt,
  canBeSplit,
  split,
  lowAngle,
  highAngle,
  solveFour,
} from './squaredMagnitude';

/** Designs are compared up to this share of half the rate: 18 kHz at 44.1. */
const COMPARED_TO = 0.82;
const CHECKS = [0.2, 0.4, 0.55, 0.68, 0.76, COMPARED_TO].map((share) => share * Math.PI);
const CHECK_SQUARES = CHECKS.map((angle) => sinSquared(angle));
/** They are compared at the corner, too, and at this share of it. */
const UNDER_CORNER = 0.6;
/** Below this angle one design method serves all; above it the best of several is chosen. */
const PLAIN_BELOW = 0.42 * Math.PI;
const HIGH_PASS_PLAIN_BELOW = 0.08 * Math.PI;
/**
 * Where besides the corner the zeros of a design with poles by impulse invariance are matched, as shares of half the
 * rate.
 */
const MATCHED_AT = [0.75, 0.6, 0.85] as const;
/** For poles of a notch: a share of the corner, and a share of half the rate. */
const NOTCH_AT = [
  [0.85, 0.7],
  [0.85, 0.9],
  [0.6, 0.8],
  [0.9, 0.6],
  [0.5, 0.95],
  [0.3, 0.6],
] as const;
/**
 * For poles that are matched too: the maximum of the upper angle, as a share of half the rate, and its value below
 * that, as a share of the corner.
 */
const UPPER_AT = [
  [0.8, 0.3],
  [0.7, 0.3],
  [0.5, 0.6],
  [0.5, 0.3],
  [0.9, 0.3],
] as const;

/**
 * Two-pole filters whose magnitude follows their analogue model to within half a decibel nearly up to half the rate, as
 * settings of a state-variable filter. The squared magnitude of either is a quotient of squares in `sin^2(angle / 2)`;
 * it is matched to that of the model at DC, at the corner and at one or two more angles, and is then split into poles
 * and zeros. Sources: Martin Vicanek, "Matched Second Order Digital Filters" (2016); Sophocles J. Orfanidis, "Digital
 * Parametric Equalizer Design with Prescribed Nyquist-Frequency Gain" (1997). Angles are per sample, above 0 and below
 * pi. Nothing is allocated: filters that move are designed anew at each step.
 */
export class MatchedFilter {
  /**
   * Settings of the state-variable filter: its tuning, its damping, and the weights of input, band-pass and low-pass.
   */
  g = 0;
  k = 1;
  direct = 1;
  band = 0;
  low = 0;
  /**
   * The model: squared magnitude as `(n0 + n1 r^2 + n2 r^4) / (d0 + d1 r^2 + d2 r^4)`, r the frequency over the corner.
   */
  private readonly n = new Float64Array(3);
  private readonly d = new Float64Array(3);
  /**
   * Squared numerator and denominator over `cos^2`, `sin^2` and `sin^2 2x`, x half the angle; those of the best design
   * so far.
   */
  private readonly b = new Float64Array(3);
  private readonly a = new Float64Array(3);
  private readonly bestB = new Float64Array(3);
  private readonly bestA = new Float64Array(3);
  private leastError = Infinity;
  private angle = 1;
  private readonly zeros = new Float64Array(3);
  private readonly poles = new Float64Array(3);
  private readonly rows = new Float64Array(20);

  /** Unity gain at every frequency. */
  flat(angle: number): void {
    this.g = Math.tan(0.5 * angle);
    this.k = Math.SQRT2;
    this.direct = 1;
    this.band = 0;
    this.low = 0;
  }

  lowPass(angle: number, q: number): void {
    this.begin(angle);
    set(this.n, 1, 0, 0);
    resonance(this.d, q);
    this.byInvariantPoles(angle, q);
    this.finish();
  }

  highPass(angle: number, q: number): void {
    this.begin(angle);
    set(this.n, 0, 0, 1);
    resonance(this.d, q);
    this.byInvariantPoles(angle, q);
    // Exact at the bottom: there the gain falls as that of the model does.
    const level = 16 / Math.pow(angle, 4);
    for (let i = 0; i < UPPER_AT.length && angle > HIGH_PASS_PLAIN_BELOW; i += 1) {
      if (!this.matchPoles(q, i, true)) continue;
      set(this.b, 0, level, -0.25 * level);
      this.compare();
    }
    this.finish();
  }

  /** Its gain at the corner is 1. */
  bandPass(angle: number, q: number): void {
    this.begin(angle);
    set(this.n, 0, 1 / (q * q), 0);
    resonance(this.d, q);
    this.byInvariantPoles(angle, q);
    this.byMatchedPoles(q, 1, 0);
    this.finish();
  }

  notch(angle: number, q: number): void {
    this.begin(angle);
    set(this.n, 1, -2, 1);
    resonance(this.d, q);
    this.parabola(this.b, 1);
    for (let i = 0; i < NOTCH_AT.length; i += 1) {
      const below = NOTCH_AT[i]![0];
      const above = NOTCH_AT[i]![1];
      if (Math.abs(above * Math.PI - angle) < 0.1 || below * angle >= above * Math.PI) continue;
      this.solvePoles(below * angle, above * Math.PI);
      this.compare();
    }
    this.finish();
  }

  /** A bell of so many dB in its middle. @param q of a bell of 0 dB */
  bell(angle: number, q: number, db: number): void {
    if (db === 0) {
      this.flat(angle);
      return;
    }
    this.begin(angle);
    const root = Math.pow(10, Math.abs(db) / 40);
    resonance(this.n, q / root);
    resonance(this.d, q * root);
    this.byInvariantPoles(angle, q * root);
    this.byMatchedPoles(q * root, root * root * root * root, 1);
    if (db < 0) this.invert();
    this.finish();
  }

  /** A shelf below, with the slope of a Butterworth filter; half its decibels are reached at the angle. */
  lowShelf(angle: number, db: number): void {
    if (db === 0) {
      this.flat(angle);
      return;
    }
    this.begin(angle);
    const root = Math.pow(10, Math.abs(db) / 40);
    const square = root * root;
    set(this.n, square * square, 0, square);
    set(this.d, 1, 0, square);
    this.byInvariantPoles(angle / Math.sqrt(root), Math.SQRT1_2);
    this.byFourAngles();
    if (db < 0) this.invert();
    this.finish();
  }

  /** A high shelf is a low shelf of the opposite gain, times that gain. */
  highShelf(angle: number, db: number): void {
    this.lowShelf(angle, -db);
    if (db === 0) return;
    const gain = Math.pow(10, db / 20);
    this.direct *= gain;
    this.band *= gain;
    this.low *= gain;
  }

  private begin(angle: number): void {
    this.angle = angle;
    this.leastError = Infinity;
  }

  /** Squared magnitude of the model. */
  private model(angle: number): number {
    const { n, d } = this;
    const r = angle / this.angle;
    const r2 = r * r;
    return (n[0]! + r2 * (n[1]! + r2 * n[2]!)) / (d[0]! + r2 * (d[1]! + r2 * d[2]!));
  }

  /** Poles by impulse invariance, zeros that meet the model at DC, at the corner and at a third angle. */
  private byInvariantPoles(poleAngle: number, q: number): void {
    const damping = 0.5 / q;
    const fall = Math.exp(-damping * poleAngle);
    const turn =
      damping <= 1
        ? Math.cos(Math.sqrt(1 - damping * damping) * poleAngle)
        : Math.cosh(Math.sqrt(damping * damping - 1) * poleAngle);
    const a1 = -2 * fall * turn;
    const a2 = fall * fall;
    const scale = 1 / ((1 + a1 + a2) * (1 + a1 + a2));
    set(this.a, 1, (1 - a1 + a2) * (1 - a1 + a2) * scale, -4 * a2 * scale);
    const ways = this.angle > HIGH_PASS_PLAIN_BELOW ? MATCHED_AT.length : 1;
    for (let i = 0; i < ways; i += 1) {
      const third = MATCHED_AT[i]! * Math.PI;
      if (Math.abs(third - this.angle) < 0.05) continue;
      if (this.n[0] === 0 && this.n[1] === 0) this.doubleZero(third);
      else this.solveZeros(third);
      this.compare();
    }
  }

  private solveZeros(third: number): void {
    const { a, b, angle } = this;
    const atDc = this.n[0]! / this.d[0]!;
    const p1 = sinSquared(angle);
    const q1 = sinSquared(third);
    const p2 = 4 * p1 * (1 - p1);
    const q2 = 4 * q1 * (1 - q1);
    const r1 = this.model(angle) * valueAt(a, p1) - atDc * (1 - p1);
    const r3 = this.model(third) * valueAt(a, q1) - atDc * (1 - q1);
    const det = p1 * q2 - p2 * q1;
    set(b, atDc, (r1 * q2 - p2 * r3) / det, (p1 * r3 - q1 * r1) / det);
  }

  /** Both zeros of a high-pass are at DC; its level is met at one angle. */
  private doubleZero(at: number): void {
    const p = sinSquared(at);
    const level = (this.model(at) * valueAt(this.a, p)) / (p * p);
    set(this.b, 0, level, -0.25 * level);
  }

  /**
   * Poles that meet the model at two angles, with a peak exactly at the corner.
   * @param peak squared gain there
   * @param base squared gain at DC
   */
  private byMatchedPoles(q: number, peak: number, base: number): void {
    if (this.angle <= PLAIN_BELOW) return;
    const { a, b } = this;
    for (let i = 0; i < UPPER_AT.length; i += 1) {
      if (!this.matchPoles(q, i, false)) continue;
      this.parabola(b, base - peak);
      for (let k = 0; k < 3; k += 1) b[k] = b[k]! + peak * a[k]!;
      this.compare();
    }
  }

  /**
   * Poles from the squared denominator at both -3 dB edges of the resonance, as far as they are below Nyquist.
   * @param way index in UPPER_AT  @param highPass whether the numerator is that of a high-pass, else that of a peak
   * @returns false when both edges are the same angle
   */
  private matchPoles(q: number, way: number, highPass: boolean): boolean {
    const { angle } = this;
    const most = UPPER_AT[way]![0];
    const otherwise = UPPER_AT[way]![1];
    const middle = Math.sqrt(1 + 1 / (4 * q * q));
    const lower = angle * (middle - 0.5 / q);
    let upper = angle * (middle + 0.5 / q);
    const limit = most * Math.PI;
    if (upper > limit) upper = limit > 1.08 * angle ? limit : otherwise * angle;
    if (Math.abs(upper / lower - 1) < 0.01) return false;
    this.solveFor(lower, this.poleValue(lower, highPass), upper, this.poleValue(upper, highPass));
    return true;
  }

  /** Squared denominator at an angle with which the digital filter's own numerator gives the model's gain. */
  private poleValue(angle: number, highPass: boolean): number {
    const { d } = this;
    const r = angle / this.angle;
    const r2 = r * r;
    const model = d[0]! + r2 * (d[1]! + r2 * d[2]!);
    const p = sinSquared(angle);
    if (highPass) return (model * 16 * p * p) / Math.pow(angle, 4);
    const bent = (1 - p / sinSquared(this.angle)) / (1 - r2);
    return model * bent * bent;
  }

  /** Poles of a design whose zeros are set already. */
  private solvePoles(lower: number, upper: number): void {
    this.solveFor(
      lower,
      valueAt(this.b, sinSquared(lower)) / this.model(lower),
      upper,
      valueAt(this.b, sinSquared(upper)) / this.model(upper),
    );
  }

  private solveFor(lower: number, atLower: number, upper: number, atUpper: number): void {
    const p1 = sinSquared(lower);
    const q1 = sinSquared(upper);
    const p2 = 4 * p1 * (1 - p1);
    const q2 = 4 * q1 * (1 - q1);
    const r1 = atLower - (1 - p1);
    const r2 = atUpper - (1 - q1);
    const det = p1 * q2 - p2 * q1;
    set(this.a, 1, (r1 * q2 - p2 * r2) / det, (p1 * r2 - q1 * r1) / det);
  }

  /** `height (1 - sin^2 / sin^2 of the corner)^2`: nothing at the corner, and level there. */
  private parabola(out: Float64Array, height: number): void {
    const s = 1 / sinSquared(this.angle);
    const atHalf = (1 - s) * (1 - s);
    const between = (1 - 0.5 * s) * (1 - 0.5 * s);
    set(out, height, height * atHalf, height * (between - 0.5 - 0.5 * atHalf));
  }

  /** Poles and zeros of a shelf together, by four angles. */
  private byFourAngles(): void {
    const { angle, rows } = this;
    const high = 0.8 * Math.PI;
    const plain = angle < 0.55 * high;
    const s = 1 / sinSquared(angle);
    const base = this.n[0]! / this.d[0]!;
    for (let i = 0; i < 4; i += 1) {
      const at = plain ? lowAngle(i, angle, high) : highAngle(i, angle, high);
      const p1 = sinSquared(at);
      const p2 = 4 * p1 * (1 - p1);
      const level = this.model(at);
      const scale = 1 / (1 + level);
      rows[5 * i] = -level * p1 * s * scale;
      rows[5 * i + 1] = -level * p2 * s * scale;
      rows[5 * i + 2] = p1 * s * scale;
      rows[5 * i + 3] = p2 * s * scale;
      rows[5 * i + 4] = (level - base) * (1 - p1) * scale;
    }
    if (!solveFour(rows)) return;
    set(this.a, 1, rows[4]! * s, rows[9]! * s);
    set(this.b, base, rows[14]! * s, rows[19]! * s);
    this.compare();
  }

  /** Keeps a design when it can be split, and is nearer to the model than the best so far. */
  private compare(): void {
    const { a, b } = this;
    if (!canBeSplit(a) || !canBeSplit(b)) return;
    let worst = 0;
    for (let i = 0; i < CHECKS.length + 2; i += 1) {
      const own = i - CHECKS.length;
      const angle = own < 0 ? CHECKS[i]! : own === 0 ? this.angle : UNDER_CORNER * this.angle;
      const p = own < 0 ? CHECK_SQUARES[i]! : sinSquared(angle);
      const ratio = (valueAt(b, p) + 1e-9) / (valueAt(a, p) * this.model(angle) + 1e-9);
      const off = ratio > 1 ? ratio : 1 / ratio;
      if (off > worst) worst = off;
    }
    if (!(worst < this.leastError)) return;
    this.leastError = worst;
    this.bestA.set(a);
    this.bestB.set(b);
  }

  /** Swaps numerator and denominator: a boost becomes the cut that undoes it. */
  private invert(): void {
    for (let i = 0; i < 3; i += 1) {
      const denominator = this.bestA[i]!;
      this.bestA[i] = this.bestB[i]!;
      this.bestB[i] = denominator;
    }
  }

  /** Splits the best design into poles and zeros, and sets the filter's coefficients. */
  private finish(): void {
    const { zeros, poles } = this;
    split(this.bestB, zeros);
    split(this.bestA, poles);
    const level = 1 / poles[0]!;
    const a1 = poles[1]! * level;
    const a2 = poles[2]! * level;
    const b0 = zeros[0]! * level;
    const b1 = zeros[1]! * level;
    const b2 = zeros[2]! * level;
    const half = 1 - a1 + a2;
    this.g = Math.sqrt((1 + a1 + a2) / half);
    this.k = (2 * (1 - a2)) / (half * this.g);
    this.direct = (b0 - b1 + b2) / half;
    this.low = (b0 + b1 + b2) / (1 + a1 + a2) - this.direct;
    this.band = (2 * (b0 - b2)) / (half * this.g) - this.direct * this.k;
  }
}
