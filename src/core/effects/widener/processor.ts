import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { DelayLine } from '../../dsp/delayLine';
import { smoothToward } from '../../dsp/onePole';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { widenerParams } from './params';

const P = paramIndices(widenerParams);
const SWITCH_SECONDS = 0.01;
const LONGEST_SECONDS = 0.04;
/**
 * The right offset is longer than the left by the golden section, so that the notches of their combs do not coincide.
 */
const RIGHT_OFFSET = 1.618034;
/** Fastest a delay moves, in samples per sample. */
const GLIDE = 0.2;

/**
 * Width from a mono signal. Combs: the delayed mid is added at the left and subtracted at the right, so that they
 * cancel in the sum (H. Lauridsen, 1954; M. R. Schroeder, "An artificial stereophonic effect obtained from a single
 * signal", 1958).
 */
export class WidenerProcessor extends Insert implements EffectProcessor {
  private readonly line: DelayLine;
  private readonly near = new Float64Array(STEP_FRAMES);
  private readonly far = new Float64Array(STEP_FRAMES);
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly mid = new Float64Array(STEP_FRAMES);
  private delay = 0;
  private amount = 0;
  private offsets = 0;
  private safe = 1;

  constructor(sampleRate: number) {
    super(sampleRate, 0.1, SWITCH_SECONDS);
    this.line = new DelayLine(LONGEST_SECONDS * RIGHT_OFFSET * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES);
  }

  reset(_seconds: number, values: Float64Array): void {
    this.line.clear();
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.delay = this.samples(values);
    this.amount = values[P.amount]!;
    this.offsets = values[P.method]!;
    this.safe = values[P.monoSafe]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const n = STEP_FRAMES;
    const { mid, near, far } = this;
    for (let i = 0; i < n; i += 1) mid[i] = 0.5 * (input.left[i]! + input.right[i]!);
    this.line.write(mid, n);
    const goal = this.samples(values);
    const most = GLIDE * n;
    const next = goal > this.delay + most ? this.delay + most : goal < this.delay - most ? this.delay - most : goal;
    this.read(this.delay, next, near);
    this.read(this.delay * RIGHT_OFFSET, next * RIGHT_OFFSET, far);
    this.delay = next;
    this.offsets = smoothToward(this.offsets, values[P.method]!, this.share);
    this.safe = smoothToward(this.safe, values[P.monoSafe]!, this.share);
    this.join(input, wet, values[P.amount]!);
  }

  private samples(values: Float64Array): number {
    return (values[P.delay]! * this.sampleRate) / 1000;
  }

  private read(from: number, to: number, out: Float64Array): void {
    const n = STEP_FRAMES;
    if (from === to) {
      this.line.readFixed(n + from, n, out);
      return;
    }
    const step = (to - from) / n;
    for (let i = 0; i < n; i += 1) this.delays[i] = n + from + step * (i + 1);
    this.line.readMoving(this.delays, n, out);
  }

  private join(input: StereoBlock, wet: StereoBlock, goal: number): void {
    const n = STEP_FRAMES;
    const { near, far, offsets, safe } = this;
    const step = (goal - this.amount) / n;
    let amount = this.amount;
    for (let i = 0; i < n; i += 1) {
      amount += step;
      const l = near[i]!;
      const r = -near[i]! + (far[i]! + near[i]!) * offsets;
      // The level that the sum would gain is removed again when the mono sum has to be unchanged.
      const common = 0.5 * (l + r) * safe;
      wet.left[i] = input.left[i]! + amount * (l - common);
      wet.right[i] = input.right[i]! + amount * (r - common);
    }
    this.amount = goal;
  }
}
