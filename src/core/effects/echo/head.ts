import { STEP_FRAMES } from '../../dsp/blocks';
import { DelayLine } from '../../dsp/delayLine';
import type { EchoKernel } from './echoKernel';
import type { Source } from './steadyLoop';

/**
 * Fastest a gliding head moves against the line, in samples per sample: three times the speed forward, a tenth at the
 * slowest.
 */
const FASTEST_SHORTER = -2;
const FASTEST_LONGER = 0.9;
const GLIDE_SECONDS = 0.08;
const FADE_SECONDS = 0.03;
/** Distance from the goal at which a glide ends, in samples. */
const ARRIVED = 1e-4;

/** The read head of one side: moves to a new delay without a click. */
export class EchoHead {
  readonly line: DelayLine;
  private delay = -1;
  private next = -1;
  private fade = 0;
  private readonly fadeStep: number;
  private readonly glideShare: number;
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly other = new Float64Array(STEP_FRAMES);
  private readonly single = new Float32Array(STEP_FRAMES);

  /** @param ring a ring in the kernel's memory, which then reads it */
  constructor(
    sampleRate: number,
    private readonly side: 0 | 1,
    maxDelay: number,
    private readonly kernel: EchoKernel | null,
    ring?: Float32Array<ArrayBuffer>,
  ) {
    this.line = new DelayLine(maxDelay, STEP_FRAMES, ring);
    this.fadeStep = 1 / Math.round(FADE_SECONDS * sampleRate);
    this.glideShare = 1 - Math.exp(-1 / (GLIDE_SECONDS * sampleRate));
  }

  /** Jumps to a delay. */
  jump(delay: number): void {
    this.delay = delay;
    this.next = -1;
    this.fade = 0;
  }

  /** The shortest delay of the coming block, without wow and flutter. */
  shortest(target: number): number {
    const fading = this.next >= 0 && this.next < this.delay ? this.next : this.delay;
    return target < fading ? target : fading;
  }

  /** True when its delay is constant. */
  isSteadyAt(delay: number): boolean {
    return this.next < 0 && this.delay === delay;
  }

  /** Reads `n` samples; `waver` has an offset for each when `wavering`. */
  read(target: number, glide: boolean, waver: Float64Array, wavering: boolean, n: number, out: Float64Array): void {
    if (this.next < 0 && target !== this.delay) {
      if (glide) {
        this.readGliding(target, waver, n, out);
        return;
      }
      this.next = target;
      this.fade = 0;
    }
    if (this.next >= 0) this.readFading(waver, wavering, n, out);
    else this.readAt(this.delay, waver, wavering, n, out);
  }

  /** Its present delay. */
  get standing(): number {
    return this.delay;
  }

  /**
   * Points `source` at the repeats of the next step at the present delay: in the ring itself where they are contiguous.
   */
  readSteady(source: Source): void {
    const at = this.line.contiguousAt(this.delay, STEP_FRAMES);
    if (at >= 0) {
      source.samples = this.line.ring;
      source.at = at;
      return;
    }
    this.line.readFixed(this.delay, STEP_FRAMES, this.other);
    for (let i = 0; i < STEP_FRAMES; i += 1) this.single[i] = this.other[i]!;
    source.samples = this.single;
    source.at = 0;
  }

  private readAt(delay: number, waver: Float64Array, wavering: boolean, n: number, out: Float64Array): void {
    if (!wavering) {
      if (n < STEP_FRAMES || !this.kernel?.reader.readFixed(this.line, delay, out)) this.line.readFixed(delay, n, out);
      return;
    }
    const { delays } = this;
    for (let i = 0; i < n; i += 1) delays[i] = delay + waver[i]!;
    this.readMoving(n, out);
  }

  private readMoving(n: number, out: Float64Array): void {
    const { delays, kernel, line } = this;
    if (!kernel?.reader.moving(line, delays, n, out)) line.readMoving(delays, n, out);
  }

  private readGliding(target: number, waver: Float64Array, n: number, out: Float64Array): void {
    const { delays, glideShare } = this;
    let delay = this.delay;
    for (let i = 0; i < n; i += 1) {
      const wanted = (target - delay) * glideShare;
      delay += wanted < FASTEST_SHORTER ? FASTEST_SHORTER : wanted > FASTEST_LONGER ? FASTEST_LONGER : wanted;
      delays[i] = delay + waver[i]!;
    }
    this.readMoving(n, out);
    const away = target - delay;
    this.delay = away < ARRIVED && away > -ARRIVED ? target : delay;
  }

  private readFading(waver: Float64Array, wavering: boolean, n: number, out: Float64Array): void {
    const { other, fadeStep } = this;
    this.readAt(this.delay, waver, wavering, n, out);
    this.readAt(this.next, waver, wavering, n, other);
    let fade = this.fade;
    for (let i = 0; i < n; i += 1) {
      fade += fadeStep;
      if (fade > 1) fade = 1;
      const smooth = fade * fade * (3 - 2 * fade);
      out[i] = out[i]! + (other[i]! - out[i]!) * smooth;
    }
    this.fade = fade;
    if (fade >= 1) {
      this.delay = this.next;
      this.next = -1;
    }
  }
}
