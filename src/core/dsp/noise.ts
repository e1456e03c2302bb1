/**
 * White noise between -1 and 1, the same from the same start; no allocation. Algorithm: xorshift32 (George Marsaglia,
 * "Xorshift RNGs", 2003).
 */
export class Noise {
  private state: number;

  constructor(private readonly start = 0x2545f491) {
    this.state = start;
  }

  /** @param place start of the sequence: another gives other noise */
  restart(place = 0): void {
    this.state = (this.start ^ Math.imul(place | 0, 0x9e3779b1)) | 0 || this.start;
    for (let i = 0; i < 4; i += 1) this.next();
  }

  next(): number {
    let x = this.state;
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    this.state = x;
    return x / 2147483648;
  }
}
