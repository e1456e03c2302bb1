import FFT from 'fft.js';

export const SPECTRUM_FRAMES = 4096;
/** Averaging coefficient, about 1.5 s: long enough to read, short enough to follow a change. */
const SHARE = 0.06;

/** Mean power of both sides, and of their product, in each bin: what spectra and the loss in mono are read from. */
export class MeanSpectrum {
  readonly power = new Float64Array(SPECTRUM_FRAMES / 2 + 1);
  /** Power of the mono sum, on the same scale. */
  readonly mono = new Float64Array(SPECTRUM_FRAMES / 2 + 1);
  private readonly fft = new FFT(SPECTRUM_FRAMES);
  private readonly window = Float64Array.from(
    { length: SPECTRUM_FRAMES },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / SPECTRUM_FRAMES),
  );
  private readonly frame = new Float64Array(SPECTRUM_FRAMES);
  private readonly left: number[];
  private readonly right: number[];
  private begun = false;

  constructor() {
    this.left = this.fft.createComplexArray();
    this.right = this.fft.createComplexArray();
  }

  clear(): void {
    this.power.fill(0);
    this.mono.fill(0);
    this.begun = false;
  }

  /** Adds SPECTRUM_FRAMES samples of both channels. */
  addBlock(left: Float32Array, right: Float32Array): void {
    this.transform(left, this.left);
    this.transform(right, this.right);
    const share = this.begun ? SHARE : 1;
    this.begun = true;
    // A Hann window keeps 3/8 of the power; bins on both sides of zero count once each.
    const scale = 16 / (3 * SPECTRUM_FRAMES * SPECTRUM_FRAMES);
    for (let k = 0; k <= SPECTRUM_FRAMES / 2; k += 1) {
      const [a, b, c, d] = [this.left[2 * k]!, this.left[2 * k + 1]!, this.right[2 * k]!, this.right[2 * k + 1]!];
      const power = (a * a + b * b + c * c + d * d) * scale;
      const mono = ((a + c) * (a + c) + (b + d) * (b + d)) * 0.5 * scale;
      this.power[k] = this.power[k]! + (power - this.power[k]!) * share;
      this.mono[k] = this.mono[k]! + (mono - this.mono[k]!) * share;
    }
  }

  private transform(samples: Float32Array, out: number[]): void {
    for (let i = 0; i < SPECTRUM_FRAMES; i += 1) this.frame[i] = samples[i]! * this.window[i]!;
    this.fft.realTransform(out, this.frame);
  }
}

/** Sum over the bins from `fromHz` up to, and without, `toHz`. */
export function bandPower(power: Float64Array, fromHz: number, toHz: number, sampleRate: number): number {
  const bin = sampleRate / SPECTRUM_FRAMES;
  const end = Math.min(power.length, Math.ceil(toHz / bin));
  let sum = 0;
  for (let k = Math.max(1, Math.ceil(fromHz / bin)); k < end; k += 1) sum += power[k]!;
  return sum;
}
