import { sharedTransform, type FastTransform } from './fastTransform';
import { hann } from './hann';
import { SpectralEnvelope } from './spectralEnvelope';

/** Limit of the gain by which a shifted envelope changes a bin, in natural logarithms: 30 dB. */
const MAX_LIFT = 3.45;
/** Smoothing of the envelope from frame to frame: beating tones would modulate the gains otherwise. */
const ENVELOPE_FOLLOW = 0.5;
const TURN = 2 * Math.PI;
/** Bins below this are ignored in onset detection. */
const ONSET_FROM = 8;

/** Spectrum of one channel; arrays have the bins from 0 to half the rate. */
class Side {
  readonly frame: Float64Array;
  readonly made: Float64Array;
  readonly re: Float64Array;
  readonly im: Float64Array;
  /** Phases of the last frame, of the input and of the output. */
  readonly reBefore: Float64Array;
  readonly imBefore: Float64Array;
  readonly reLaid: Float64Array;
  readonly imLaid: Float64Array;

  constructor(size: number) {
    const bins = (): Float64Array => new Float64Array(size / 2 + 1);
    this.frame = new Float64Array(size);
    this.made = new Float64Array(size);
    [this.re, this.im, this.reBefore, this.imBefore, this.reLaid, this.imLaid] = [
      bins(),
      bins(),
      bins(),
      bins(),
      bins(),
      bins(),
    ];
  }
}

/**
 * Stereo phase vocoder: analyses frames and overlaps them again at another distance. Bins round a peak keep their
 * phases relative to it, in both channels, so that neither a voice nor its pan is smeared.
 * Source: Jean Laroche and Mark Dolson, "Improved Phase Vocoder Time-Scale Modification of Audio" (1999), identity
 * phase locking.
 */
export class PhaseVocoder {
  /**
   * `frame` is taken apart, `made` is what comes of it: windowed both times, to be added up at a distance of `hopOut`.
   */
  readonly left: Side;
  readonly right: Side;
  private readonly transform: FastTransform;
  private readonly window: Float64Array;
  private readonly loud: Float64Array;
  private readonly peaks: Int32Array;
  private readonly envelope: SpectralEnvelope;
  /** Gain of each bin, in natural logarithms. */
  private readonly lifts: Float64Array;
  private fresh = true;
  private sumBefore = 0;

  /** @param size samples of a frame, a power of two */
  constructor(
    readonly size: number,
    sampleRate: number,
  ) {
    const bins = size / 2 + 1;
    this.left = new Side(size);
    this.right = new Side(size);
    this.transform = sharedTransform(size);
    this.window = hann(size);
    this.loud = new Float64Array(bins);
    this.peaks = new Int32Array(bins);
    this.lifts = new Float64Array(bins);
    this.envelope = new SpectralEnvelope(size, sampleRate);
  }

  /** Gain that restores the input's level when frames overlap at this distance. */
  levelAt(hopOut: number): number {
    return hopOut / (0.375 * this.size);
  }

  /** Resets the phases: the next frame keeps those of its input. */
  clear(): void {
    this.fresh = true;
    this.sumBefore = 0;
    this.loud.fill(0);
  }

  /**
   * Makes `made` of `frame` on both sides, by the four stages below, which may be spread over time.
   * @param hopIn samples since the last frame
   * @param hopOut samples from the last output frame, at most a quarter of the size
   * @param formants ratio by which the envelope is shifted in frequency; 1 leaves it
   * @param top bins from here on are silenced
   */
  processFrame(hopIn: number, hopOut: number, formants: number, top: number): void {
    this.analyze();
    this.moveEnvelope(formants);
    this.advancePhases(hopIn, hopOut);
    this.synthesize(top);
  }

  /** First stage. Both sides in one transform: the left as its real part, the right as its imaginary one. */
  analyze(): void {
    const { left, right, window, loud, size, transform } = this;
    const { re, im } = transform;
    for (let i = 0; i < size; i += 1) {
      re[i] = left.frame[i]! * window[i]!;
      im[i] = right.frame[i]! * window[i]!;
    }
    transform.forward();
    let rise = 0;
    let sum = 0;
    for (let k = 0; k <= size / 2; k += 1) {
      const mirror = k === 0 ? 0 : size - k;
      const a = re[k]!,
        b = im[k]!,
        c = re[mirror]!,
        d = im[mirror]!;
      const lr = 0.5 * (a + c),
        li = 0.5 * (b - d),
        rr = 0.5 * (b + d),
        ri = 0.5 * (c - a);
      left.re[k] = lr;
      left.im[k] = li;
      right.re[k] = rr;
      right.im[k] = ri;
      const now = Math.sqrt(lr * lr + li * li + rr * rr + ri * ri);
      if (k >= ONSET_FROM) {
        sum += now;
        if (now > loud[k]!) rise += now - loud[k]!;
      }
      loud[k] = now;
    }
    // At an onset all phases are reset to those of the input.
    if (rise > 0.65 * sum && sum > 2 * this.sumBefore) this.fresh = true;
    this.sumBefore = sum;
  }

  /** Second stage. */
  moveEnvelope(ratio: number): void {
    if (ratio === 1) return;
    const { left, right, loud, envelope, size, lifts } = this;
    envelope.find(loud);
    // After an onset the envelope is not smoothed with the last one.
    const follow = this.fresh ? 1 : ENVELOPE_FOLLOW;
    for (let k = 0; k <= size / 2; k += 1) {
      const lift = envelope.at(k / ratio) - envelope.log[k]!;
      const limited = lift > MAX_LIFT ? MAX_LIFT : lift < -MAX_LIFT ? -MAX_LIFT : lift;
      const followed = lifts[k]! + follow * (limited - lifts[k]!);
      lifts[k] = followed;
      const gain = Math.exp(followed);
      left.re[k] = left.re[k]! * gain;
      left.im[k] = left.im[k]! * gain;
      right.re[k] = right.re[k]! * gain;
      right.im[k] = right.im[k]! * gain;
    }
  }

  private findPeaks(): number {
    const { loud, peaks, size } = this;
    let count = 0;
    for (let k = 2; k < size / 2 - 1; k += 1) {
      const m = loud[k]!;
      if (m > 1e-9 && m > loud[k - 1]! && m > loud[k - 2]! && m >= loud[k + 1]! && m >= loud[k + 2]!) {
        peaks[count] = k;
        count += 1;
      }
    }
    return count;
  }

  /**
   * Third stage. Advances the phase of each peak by its rotation between two frames, and of all bins round it by the
   * same angle.
   */
  advancePhases(hopIn: number, hopOut: number): void {
    const { left, right, peaks } = this;
    const bins = left.re.length;
    const count = this.fresh || hopIn <= 0 ? 0 : this.findPeaks();
    this.fresh = false;
    let from = 0;
    for (let p = 0; p < count; p += 1) {
      const k = peaks[p]!;
      const louder =
        left.re[k]! * left.re[k]! + left.im[k]! * left.im[k]! >=
        right.re[k]! * right.re[k]! + right.im[k]! * right.im[k]!;
      const angle = this.angleOf(louder ? left : right, k, hopIn, hopOut);
      const to = p < count - 1 ? this.valleyAfter(k, peaks[p + 1]!) : bins;
      this.rotateBins(from, to, Math.cos(angle), Math.sin(angle));
      from = to;
    }
    this.rotateBins(from, bins, 1, 0);
    left.reBefore.set(left.re);
    left.imBefore.set(left.im);
    right.reBefore.set(right.re);
    right.imBefore.set(right.im);
  }

  private angleOf(
    { re, im, reBefore, imBefore, reLaid, imLaid }: Side,
    k: number,
    hopIn: number,
    hopOut: number,
  ): number {
    const centre = (TURN * k) / this.size;
    const phase = Math.atan2(im[k]!, re[k]!);
    const off = phase - Math.atan2(imBefore[k]!, reBefore[k]!) - centre * hopIn;
    const perSample = centre + (off - TURN * Math.round(off / TURN)) / hopIn;
    return Math.atan2(imLaid[k]!, reLaid[k]!) + perSample * hopOut - phase;
  }

  /** The region of a peak ends at the minimum before the next. */
  private valleyAfter(peak: number, next: number): number {
    const { loud } = this;
    let at = peak + 1;
    for (let k = peak + 1; k < next; k += 1) if (loud[k]! < loud[at]!) at = k;
    return at;
  }

  /** Rotates a range of bins of both channels by one angle. */
  private rotateBins(from: number, to: number, cos: number, sin: number): void {
    const { left, right } = this;
    for (let k = from; k < to; k += 1) {
      left.reLaid[k] = left.re[k]! * cos - left.im[k]! * sin;
      left.imLaid[k] = left.re[k]! * sin + left.im[k]! * cos;
      right.reLaid[k] = right.re[k]! * cos - right.im[k]! * sin;
      right.imLaid[k] = right.re[k]! * sin + right.im[k]! * cos;
    }
  }

  /** Fourth stage. @param top bins from here on are silenced */
  synthesize(top: number): void {
    const { left, right, window, size, transform } = this;
    const { re, im } = transform;
    const scale = 1 / size;
    for (let k = 0; k <= size / 2; k += 1) {
      const level = k < top ? scale : 0;
      const lr = level * left.reLaid[k]!,
        li = level * left.imLaid[k]!,
        rr = level * right.reLaid[k]!,
        ri = level * right.imLaid[k]!;
      // Bins at 0 Hz and at half the rate are real.
      const edge = k === 0 || k === size / 2;
      re[k] = edge ? lr : lr - ri;
      im[k] = edge ? rr : li + rr;
      if (edge) continue;
      re[size - k] = lr + ri;
      im[size - k] = rr - li;
    }
    transform.inverse();
    for (let i = 0; i < size; i += 1) {
      left.made[i] = re[i]! * window[i]!;
      right.made[i] = im[i]! * window[i]!;
    }
  }
}
