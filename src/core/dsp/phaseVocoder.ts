import FFT from 'fft.js';
import { hann } from './hann';
import { SpectralEnvelope } from './spectralEnvelope';

/** Most that an envelope that is moved may lift or lower a bin, in natural logarithms: 30 dB. */
const MOST_LIFT = 3.45;
const TURN = 2 * Math.PI;
/** Bins under this tell nothing of an onset. */
const ONSET_FROM = 8;

/** One side of the sound, as spectrum. */
class Side {
  readonly frame: Float64Array;
  readonly made: Float64Array;
  readonly magnitude: Float64Array;
  readonly phase: Float64Array;
  /** Phases of the last frame as it came and as it was laid. */
  readonly before: Float64Array;
  readonly laid: Float64Array;

  constructor(size: number) {
    const bins = size / 2 + 1;
    this.frame = new Float64Array(size);
    this.made = new Float64Array(size);
    this.magnitude = new Float64Array(bins);
    this.phase = new Float64Array(bins);
    this.before = new Float64Array(bins);
    this.laid = new Float64Array(bins);
  }
}

/**
 * Takes a stereo sound apart frame by frame and lays it together with the frames nearer or farther apart. All that lies round a peak keeps
 * the phases it has to it, on both sides, so that neither a voice nor its place falls into a wash.
 * Source: Jean Laroche and Mark Dolson, "Improved Phase Vocoder Time-Scale Modification of Audio" (1999), identity phase locking.
 */
export class PhaseVocoder {
  /** `frame` is taken apart, `made` is what comes of it: windowed both times, to be added up at a distance of `hopOut`. */
  readonly left: Side;
  readonly right: Side;
  private readonly fft: FFT;
  private readonly packed: number[];
  private readonly spectrum: number[];
  private readonly window: Float64Array;
  private readonly loud: Float64Array;
  private readonly turned: Float64Array;
  private readonly peaks: Int32Array;
  private readonly envelope: SpectralEnvelope;
  private fresh = true;
  private sumBefore = 0;

  /** @param size samples of a frame, a power of two */
  constructor(readonly size: number, sampleRate: number) {
    const bins = size / 2 + 1;
    this.left = new Side(size);
    this.right = new Side(size);
    this.fft = new FFT(size);
    this.packed = this.fft.createComplexArray();
    this.spectrum = this.fft.createComplexArray();
    this.window = hann(size);
    this.loud = new Float64Array(bins);
    this.turned = new Float64Array(bins);
    this.peaks = new Int32Array(bins);
    this.envelope = new SpectralEnvelope(size, sampleRate);
  }

  /** What frames laid at this distance have to be multiplied by to stand at the level they came. */
  levelAt(hopOut: number): number {
    return hopOut / (0.375 * this.size);
  }

  /** The next frame begins anew, with the phases it has. */
  clear(): void {
    this.fresh = true;
    this.sumBefore = 0;
    this.loud.fill(0);
  }

  /**
   * Makes `made` of `frame` on both sides.
   * @param hopIn samples since the last frame  @param hopOut samples by which it shall lie behind it, a quarter of the size at most
   * @param formants ratio by which the envelope is moved along the frequencies; 1 leaves it  @param top bins from here on are silenced
   */
  turn(hopIn: number, hopOut: number, formants: number, top: number): void {
    this.takeApart();
    if (formants !== 1) this.moveEnvelope(formants);
    this.layPhases(hopIn, hopOut);
    this.layTogether(top);
  }

  /** Both sides in one transform: the left as its real part, the right as its imaginary one. */
  private takeApart(): void {
    const { left, right, window, packed, spectrum, loud, size } = this;
    for (let i = 0; i < size; i += 1) {
      packed[2 * i] = left.frame[i]! * window[i]!;
      packed[2 * i + 1] = right.frame[i]! * window[i]!;
    }
    this.fft.transform(spectrum, packed);
    let rise = 0;
    let sum = 0;
    for (let k = 0; k <= size / 2; k += 1) {
      const mirror = k === 0 ? 0 : size - k;
      const a = spectrum[2 * k]!, b = spectrum[2 * k + 1]!, c = spectrum[2 * mirror]!, d = spectrum[2 * mirror + 1]!;
      const lr = 0.5 * (a + c), li = 0.5 * (b - d), rr = 0.5 * (b + d), ri = 0.5 * (c - a);
      const l = lr * lr + li * li;
      const r = rr * rr + ri * ri;
      left.magnitude[k] = Math.sqrt(l);
      right.magnitude[k] = Math.sqrt(r);
      left.phase[k] = Math.atan2(li, lr);
      right.phase[k] = Math.atan2(ri, rr);
      const now = Math.sqrt(l + r);
      if (k >= ONSET_FROM) {
        sum += now;
        if (now > loud[k]!) rise += now - loud[k]!;
      }
      loud[k] = now;
    }
    // An onset comes as one: everything starts from the phases it has there.
    if (rise > 0.65 * sum && sum > 2 * this.sumBefore) this.fresh = true;
    this.sumBefore = sum;
  }

  private moveEnvelope(ratio: number): void {
    const { left, right, loud, envelope, size } = this;
    envelope.find(loud);
    for (let k = 0; k <= size / 2; k += 1) {
      const lift = envelope.at(k / ratio) - envelope.log[k]!;
      const gain = Math.exp(lift > MOST_LIFT ? MOST_LIFT : lift < -MOST_LIFT ? -MOST_LIFT : lift);
      left.magnitude[k] = left.magnitude[k]! * gain;
      right.magnitude[k] = right.magnitude[k]! * gain;
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

  private layPhases(hopIn: number, hopOut: number): void {
    const { left, right, turned, peaks } = this;
    const count = this.fresh || hopIn <= 0 ? 0 : this.findPeaks();
    this.fresh = false;
    turned.fill(0);
    let from = 0;
    for (let p = 0; p < count; p += 1) {
      const k = peaks[p]!;
      const side = left.magnitude[k]! >= right.magnitude[k]! ? left : right;
      const centre = (TURN * k) / this.size;
      const off = side.phase[k]! - side.before[k]! - centre * hopIn;
      const perSample = centre + (off - TURN * Math.round(off / TURN)) / hopIn;
      const to = p < count - 1 ? this.valleyAfter(k, peaks[p + 1]!) : turned.length;
      turned.fill(side.laid[k]! + perSample * hopOut - side.phase[k]!, from, to);
      from = to;
    }
    this.lay(left);
    this.lay(right);
  }

  /** Each peak rules as far as the valley towards the next. */
  private valleyAfter(peak: number, next: number): number {
    const { loud } = this;
    let at = peak + 1;
    for (let k = peak + 1; k < next; k += 1) if (loud[k]! < loud[at]!) at = k;
    return at;
  }

  private lay({ phase, before, laid }: Side): void {
    const { turned } = this;
    for (let k = 0; k < phase.length; k += 1) {
      const next = phase[k]! + turned[k]!;
      laid[k] = next - TURN * Math.floor(next / TURN);
      before[k] = phase[k]!;
    }
  }

  private layTogether(top: number): void {
    const { packed, spectrum, left, right, window, size } = this;
    for (let k = 0; k <= size / 2; k += 1) {
      const l = k < top ? left.magnitude[k]! : 0;
      const r = k < top ? right.magnitude[k]! : 0;
      const lr = l * Math.cos(left.laid[k]!), li = l * Math.sin(left.laid[k]!), rr = r * Math.cos(right.laid[k]!), ri = r * Math.sin(right.laid[k]!);
      // What stands still, and what turns at half the rate, has no phase of its own.
      const edge = k === 0 || k === size / 2;
      spectrum[2 * k] = edge ? lr : lr - ri;
      spectrum[2 * k + 1] = edge ? rr : li + rr;
      if (edge) continue;
      spectrum[2 * (size - k)] = lr + ri;
      spectrum[2 * (size - k) + 1] = rr - li;
    }
    this.fft.inverseTransform(packed, spectrum);
    for (let i = 0; i < size; i += 1) {
      left.made[i] = packed[2 * i]! * window[i]!;
      right.made[i] = packed[2 * i + 1]! * window[i]!;
    }
  }
}
