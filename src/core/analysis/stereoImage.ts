/** Time constant of the averages of both sides. */
const WINDOW_SECONDS = 0.4;
/** Mean power of about -90 dBFS below which there is no stereo image. */
const HEARD = 1e-9;

/** Correlation of two channels, and their loss in mono. */
export class StereoImage {
  private left = 0;
  private right = 0;
  private both = 0;
  private readonly share: number;

  /** @param runFrames samples of each block */
  constructor(
    private readonly runFrames: number,
    sampleRate: number,
  ) {
    this.share = 1 - Math.exp(-runFrames / (WINDOW_SECONDS * sampleRate));
  }

  clear(): void {
    this.left = 0;
    this.right = 0;
    this.both = 0;
  }

  process(left: Float64Array, right: Float64Array): void {
    let ll = 0;
    let rr = 0;
    let lr = 0;
    for (let i = 0; i < this.runFrames; i += 1) {
      const l = left[i]!;
      const r = right[i]!;
      ll += l * l;
      rr += r * r;
      lr += l * r;
    }
    this.addSums(ll, rr, lr);
  }

  /** The same for a loop that has summed a block itself: squares of left, of right, and left times right. */
  addSums(ll: number, rr: number, lr: number): void {
    const n = this.runFrames;
    this.left += (ll / n - this.left) * this.share + 1e-25 - 1e-25;
    this.right += (rr / n - this.right) * this.share + 1e-25 - 1e-25;
    this.both += (lr / n - this.both) * this.share;
  }

  /**
   * Correlation: 1 when both channels are the same, 0 when they are uncorrelated, -1 when one is the other inverted; 1
   * for silence.
   */
  get correlation(): number {
    const size = Math.sqrt(this.left * this.right);
    return size < HEARD ? 1 : Math.max(-1, Math.min(1, this.both / size));
  }

  /** Loss in mono: level of the sum relative to both channels in dB, 0 for mono. Not below -60. */
  get monoDb(): number {
    const sum = this.left + this.right;
    if (sum < HEARD) return 0;
    return Math.max(-60, 10 * Math.log10(Math.max(1e-6, (sum + 2 * this.both) / (2 * sum))));
  }
}
