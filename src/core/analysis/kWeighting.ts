import { DENORMAL_GUARD } from '../dsp/denormals';

/**
 * The frequency weighting of ITU-R BS.1770-4 for any sample rate: a shelf for the head, then a high-pass.
 * The analogue prototypes behind the standard's 48 kHz coefficients, by bilinear transform
 * (B. De Man, "Evaluation of implementations of the EBU R128 loudness measurement", 2018).
 */
export interface BiquadCoefficients {
  readonly b0: number;
  readonly b1: number;
  readonly b2: number;
  readonly a1: number;
  readonly a2: number;
}

export function kShelf(sampleRate: number): BiquadCoefficients {
  const k = Math.tan((Math.PI * 1681.974450955533) / sampleRate);
  const q = 0.7071752369554196;
  const vh = Math.pow(10, 3.999843853973347 / 20);
  const vb = Math.pow(vh, 0.4996667741545416);
  const a0 = 1 + k / q + k * k;
  return {
    b0: (vh + (vb * k) / q + k * k) / a0,
    b1: (2 * (k * k - vh)) / a0,
    b2: (vh - (vb * k) / q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / q + k * k) / a0,
  };
}

export function kHighPass(sampleRate: number): BiquadCoefficients {
  const k = Math.tan((Math.PI * 38.13547087602444) / sampleRate);
  const q = 0.5003270373238773;
  const a0 = 1 + k / q + k * k;
  return { b0: 1, b1: -2, b2: 1, a1: (2 * (k * k - 1)) / a0, a2: (1 - k / q + k * k) / a0 };
}

/** One channel through both filters; gives the sum of the squares. */
export class KWeighted {
  private readonly shelf: BiquadCoefficients;
  private readonly pass: BiquadCoefficients;
  private s1 = 0;
  private s2 = 0;
  private p1 = 0;
  private p2 = 0;

  constructor(sampleRate: number) {
    this.shelf = kShelf(sampleRate);
    this.pass = kHighPass(sampleRate);
  }

  /** Sum of squares of `n` weighted samples from `from`. */
  energy(input: ArrayLike<number>, from: number, n: number): number {
    const s = this.shelf;
    const p = this.pass;
    let { s1, s2, p1, p2 } = this;
    let sum = 0;
    for (let i = from; i < from + n; i += 1) {
      const x = input[i]!;
      const y = s.b0 * x + s1;
      s1 = s.b1 * x - s.a1 * y + s2 + DENORMAL_GUARD - DENORMAL_GUARD;
      s2 = s.b2 * x - s.a2 * y + DENORMAL_GUARD - DENORMAL_GUARD;
      const z = y + p1;
      p1 = -2 * y - p.a1 * z + p2 + DENORMAL_GUARD - DENORMAL_GUARD;
      p2 = y - p.a2 * z + DENORMAL_GUARD - DENORMAL_GUARD;
      sum += z * z;
    }
    this.s1 = s1;
    this.s2 = s2;
    this.p1 = p1;
    this.p2 = p2;
    return sum;
  }
}
