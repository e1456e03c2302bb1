import { halfBandSections } from './halfBandPair';
import { DENORMAL_GUARD } from './denormals';

const COUNT = 12;
/** Keeps the two outputs 90 degrees apart down to about 20 Hz at 48 kHz. */
const TRANSITION = 0.0004;
const SECTIONS = halfBandSections(COUNT, TRANSITION);
const HALF = COUNT / 2;

/**
 * Hilbert pair: two allpass cascades whose outputs are 90 degrees apart, from a half-band filter shifted by a quarter
 * of the sample rate. Source: Rashid Ansari and Bede Liu, "Efficient sampling rate alteration using recursive
 * (IIR) digital filters" (1983).
 */
export class Quadrature {
  readonly inPhase: Float64Array;
  readonly behind: Float64Array;
  /** The last two input and output samples of each section. */
  private readonly states = new Float64Array(4 * COUNT);
  private last = 0;

  constructor(frames: number) {
    this.inPhase = new Float64Array(frames);
    this.behind = new Float64Array(frames);
  }

  clear(): void {
    this.states.fill(0);
    this.last = 0;
  }

  /** Fills `inPhase` and `behind` from a run of samples. */
  process(input: Float64Array, n: number): void {
    const { inPhase, behind } = this;
    for (let i = 0; i < n; i += 1) {
      inPhase[i] = input[i]!;
      behind[i] = i === 0 ? this.last : input[i - 1]!;
    }
    this.last = input[n - 1]!;
    for (let s = 0; s < HALF; s += 1) {
      this.section(2 * s, inPhase, n);
      this.section(2 * s + 1, behind, n);
    }
  }

  /** `y = a (x + y'') - x''` */
  private section(index: number, io: Float64Array, n: number): void {
    const { states } = this;
    const at = 4 * index;
    const a = SECTIONS[index]!;
    let x1 = states[at]!,
      x2 = states[at + 1]!,
      y1 = states[at + 2]!,
      y2 = states[at + 3]!;
    for (let i = 0; i < n; i += 1) {
      const x = io[i]!;
      const y = a * (x + y2) - x2 + DENORMAL_GUARD - DENORMAL_GUARD;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      io[i] = y;
    }
    states[at] = x1;
    states[at + 1] = x2;
    states[at + 2] = y1;
    states[at + 3] = y2;
  }
}
