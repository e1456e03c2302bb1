import { HarmonicEnvelope } from './harmonicEnvelope';
import { sharedTransform, type FastTransform } from './fastTransform';

const FLOOR = 1e-7;
const ROUNDS = 4;
/** Cepstral order, in seconds, where no pitch is found: finer structure is taken for harmonics, not formants. */
const ORDER_SECONDS = 0.0025;
/** Least number of tones from which a pitch or formants are derived. */
const FEW_TONES = 4;
/** Range of pitches in Hz, and the minimum height of their peak in the cepstrum. */
const LOWEST_HZ = 60;
const HIGHEST_HZ = 900;
const CLEAR = 0.06;

/**
 * Spectral envelope: the response of a vocal tract or a body to its source. Interpolates the harmonics where there is a
 * pitch, and is a true envelope of cepstral order where there is none.
 * Source: A. Roebel and X. Rodet, "Efficient Spectral Envelope Estimation and its Application to Pitch Shifting and
 * Envelope Preservation" (2005).
 */
export class SpectralEnvelope {
  /** Natural logarithm of the envelope, of the bins from 0 to half the rate. */
  readonly log: Float64Array;
  private readonly transform: FastTransform;
  private readonly target: Float64Array;
  private readonly harmonics: HarmonicEnvelope;
  /** Period of the pitch in samples; 0 where there is none. */
  private period = 0;
  private order = 0;

  constructor(
    private readonly size: number,
    private readonly sampleRate: number,
  ) {
    this.transform = sharedTransform(size);
    this.target = new Float64Array(size / 2 + 1);
    this.log = new Float64Array(size / 2 + 1);
    this.harmonics = new HarmonicEnvelope(size / 2 + 1);
  }

  /** @param magnitudes of the bins from 0 to half the rate */
  find(magnitudes: Float64Array): void {
    const { log, target, size } = this;
    const half = size / 2;
    for (let k = 0; k <= half; k += 1) {
      target[k] = Math.log(magnitudes[k]! + FLOOR);
      log[k] = -Infinity;
    }
    const tones = this.harmonics.findTones(magnitudes, target);
    if (tones > 0 && tones < FEW_TONES) {
      this.harmonics.drawTones(log);
      return;
    }
    for (let round = 0; round < ROUNDS; round += 1) {
      for (let k = 0; k <= half; k += 1) if (log[k]! > target[k]!) target[k] = log[k]!;
      this.toCepstrum();
      if (round === 0) {
        this.order = this.findOrder();
        if (this.period > 0 && this.harmonics.find(target, size / this.period, log)) return;
        if (tones > 0 && this.harmonics.findTones(magnitudes, target) > 0) {
          this.harmonics.drawTones(log);
          return;
        }
      }
      this.smooth();
    }
  }

  /** Cepstral order: half the period of a pitch, since harmonics sample the envelope no finer. */
  private findOrder(): number {
    const { sampleRate, size } = this;
    const cepstrum = this.transform.re;
    const last = Math.min(size / 2 - 1, Math.ceil(sampleRate / LOWEST_HZ));
    let best = 0;
    let most = CLEAR * size;
    for (let n = Math.floor(sampleRate / HIGHEST_HZ); n <= last; n += 1) {
      if (cepstrum[n]! <= most) continue;
      most = cepstrum[n]!;
      best = n;
    }
    this.period = best;
    return best > 0 ? Math.round(0.5 * best) : Math.round(ORDER_SECONDS * sampleRate);
  }

  /** The cepstrum of the target. Both are real and even, so that the forward transform serves as the inverse, too. */
  private toCepstrum(): void {
    const { target, size, transform } = this;
    const { re, im } = transform;
    const half = size / 2;
    for (let k = 0; k <= half; k += 1) re[k] = target[k]!;
    for (let k = 1; k < half; k += 1) re[size - k] = target[k]!;
    im.fill(0);
    transform.forward();
  }

  /** The target smoothed: its cepstrum up to the order, under a Hamming window. */
  private smooth(): void {
    const { log, size, order, transform } = this;
    const { re, im } = transform;
    const half = size / 2;
    for (let n = 0; n <= half; n += 1) {
      const weight = n > order ? 0 : (0.54 + 0.46 * Math.cos((Math.PI * n) / order)) / size;
      re[n] = re[n]! * weight;
      if (n > 0 && n < half) re[size - n] = re[n]!;
    }
    im.fill(0);
    transform.forward();
    for (let k = 0; k <= half; k += 1) log[k] = re[k]!;
  }

  /** Its value at a bin, interpolated between two. */
  at(bin: number): number {
    const last = this.size / 2;
    if (bin >= last) return this.log[last]!;
    const k = bin | 0;
    return this.log[k]! + (this.log[k + 1]! - this.log[k]!) * (bin - k);
  }
}
