import { SINC_AHEAD, SINC_BEFORE, SINC_PHASES, SINC_TABLE, SINC_TAPS, sincCoefficients } from './sincTable';

/** Below this many samples the long kernel would need samples not yet written; a cubic serves instead. */
const SHORT_BELOW = 24;

/** The longest run that can be read at delays of `minDelay` samples or more before its first sample is written. */
export function readableRun(minDelay: number, most: number): number {
  const run = Math.floor(minDelay) - (minDelay < SHORT_BELOW ? 3 : SINC_AHEAD + 1);
  return run < 1 ? 1 : run > most ? most : run;
}

/**
 * A ring of single-precision samples that is read at any fraction of a sample behind the write place.
 * Reads come before the write of the same run: read `n`, then write `n`.
 */
export class DelayLine {
  readonly ring: Float32Array;
  readonly mask: number;
  private place = 0;
  private readonly kernel = new Float64Array(SINC_TAPS);
  private readonly run: Float64Array;

  /** @param maxDelay longest delay in samples  @param maxRun longest run of samples per call */
  constructor(maxDelay: number, maxRun: number) {
    let size = 64;
    while (size < maxDelay + maxRun + SINC_TAPS) size *= 2;
    this.ring = new Float32Array(size);
    this.mask = size - 1;
    this.run = new Float64Array(maxRun + SINC_TAPS);
  }

  clear(): void {
    this.ring.fill(0);
    this.place = 0;
  }

  write(input: Float64Array, n: number): void {
    const { ring, mask } = this;
    let at = this.place;
    for (let i = 0; i < n; i += 1) {
      ring[at] = input[i]!;
      at = (at + 1) & mask;
    }
    this.place = at;
  }

  /** Reads `n` samples at one unchanging delay: exact copies when it is whole, one fixed kernel when it is not. */
  readFixed(delay: number, n: number, out: Float64Array): void {
    const { ring, mask, run, kernel } = this;
    const from = this.place - delay;
    const whole = Math.floor(from);
    const fraction = from - whole;
    if (fraction < 1e-7 || fraction > 1 - 1e-7) {
      let at = (fraction > 0.5 ? whole + 1 : whole) & mask;
      for (let i = 0; i < n; i += 1) {
        out[i] = ring[at]!;
        at = (at + 1) & mask;
      }
      return;
    }
    if (delay < SHORT_BELOW) {
      for (let i = 0; i < n; i += 1) out[i] = this.cubic(whole + i, fraction);
      return;
    }
    sincCoefficients(fraction, kernel);
    let at = (whole - SINC_BEFORE) & mask;
    const length = n + SINC_TAPS - 1;
    for (let i = 0; i < length; i += 1) {
      run[i] = ring[at]!;
      at = (at + 1) & mask;
    }
    const k0 = kernel[0]!, k1 = kernel[1]!, k2 = kernel[2]!, k3 = kernel[3]!, k4 = kernel[4]!, k5 = kernel[5]!, k6 = kernel[6]!, k7 = kernel[7]!;
    const k8 = kernel[8]!, k9 = kernel[9]!, k10 = kernel[10]!, k11 = kernel[11]!, k12 = kernel[12]!, k13 = kernel[13]!, k14 = kernel[14]!, k15 = kernel[15]!;
    for (let i = 0; i < n; i += 1) {
      const near = k6 * run[i + 6]! + k7 * run[i + 7]! + k8 * run[i + 8]! + k9 * run[i + 9]!;
      const early = k0 * run[i]! + k1 * run[i + 1]! + k2 * run[i + 2]! + k3 * run[i + 3]! + k4 * run[i + 4]! + k5 * run[i + 5]!;
      const late = k10 * run[i + 10]! + k11 * run[i + 11]! + k12 * run[i + 12]! + k13 * run[i + 13]! + k14 * run[i + 14]! + k15 * run[i + 15]!;
      out[i] = near + early + late;
    }
  }

  /** Reads `n` samples, each at its own delay in samples. */
  readMoving(delays: Float64Array, n: number, out: Float64Array): void {
    const { ring, mask } = this;
    const table = SINC_TABLE;
    const place = this.place;
    for (let i = 0; i < n; i += 1) {
      const delay = delays[i]!;
      const from = place + i - delay;
      const whole = Math.floor(from);
      const fraction = from - whole;
      if (delay < SHORT_BELOW) {
        out[i] = this.cubic(whole, fraction);
        continue;
      }
      const at = fraction * SINC_PHASES;
      const phase = at | 0;
      const blend = at - phase;
      let row = phase * SINC_TAPS;
      let sum = 0;
      for (let k = whole - SINC_BEFORE, end = k + SINC_TAPS; k < end; k += 1) {
        const here = table[row]!;
        sum += ring[k & mask]! * (here + (table[row + SINC_TAPS]! - here) * blend);
        row += 1;
      }
      out[i] = sum;
    }
  }

  /** Straight-line reading, for short moving delays that have no sample ahead. */
  readLinear(delays: Float64Array, n: number, out: Float64Array): void {
    const { ring, mask, place } = this;
    for (let i = 0; i < n; i += 1) {
      const from = place + i - delays[i]!;
      const whole = Math.floor(from);
      const here = ring[whole & mask]!;
      out[i] = here + (ring[(whole + 1) & mask]! - here) * (from - whole);
    }
  }

  /** Four-point Lagrange interpolation (Laakso et al., "Splitting the Unit Delay", 1996): needs two samples ahead. */
  private cubic(whole: number, f: number): number {
    const { ring, mask } = this;
    const a = ring[(whole - 1) & mask]!;
    const b = ring[whole & mask]!;
    const c = ring[(whole + 1) & mask]!;
    const d = ring[(whole + 2) & mask]!;
    const p = f + 1;
    const q = f - 1;
    const r = f - 2;
    return (-f * q * r * a) / 6 + (p * q * r * b) / 2 - (p * f * r * c) / 2 + (p * f * q * d) / 6;
  }
}
