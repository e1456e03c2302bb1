import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import type { Param } from '../params/param';
import type { ParameterSmoother } from './parameterSmoother';

/** Length of the fade-out and of the fade-in, in steps: about 5 ms each. */
const FADE_STEPS = 4;
/** Steps of silence after a change, while its transient passes; more for an effect with latency. */
const MUTED_STEPS = 8;
const MUTED_STEPS_WITH_LATENCY = 20;

const smoothstep = (x: number): number => x * x * (3 - 2 * x);

/**
 * Makes parameter changes that would click: fades the wet signal out, applies the change, waits, and fades it in again.
 * Only parameters with `mutesOnChange` wait; all others pass at once.
 */
export class ClickFreeSwitch {
  /** Values for the processor: the present ones, but for pending changes of parameters with `mutesOnChange`. */
  readonly values: Float64Array;
  private readonly mutedIndices: readonly number[];
  private gain = 1;
  private previousGain = 1;
  private remainingMutedSteps = 0;
  /** Samples into the step from which the gain moves. */
  private fadeFrom = 0;
  private readonly mutedSteps: number;

  /** @param hasLatency true for an effect with latency */
  constructor(params: readonly Param[], values: Float64Array, hasLatency: boolean) {
    this.mutedSteps = hasLatency ? MUTED_STEPS_WITH_LATENCY : MUTED_STEPS;
    this.mutedIndices = params.flatMap(({ mutesOnChange }, index) => (mutesOnChange ? [index] : []));
    this.values = this.mutedIndices.length > 0 ? Float64Array.from(values) : values;
  }

  /** Applies all changes at once; for a processor that is silent. */
  jump(values: Float64Array): void {
    this.values.set(values);
    this.gain = 1;
    this.previousGain = 1;
    this.remainingMutedSteps = 0;
  }

  /** Takes the values of a step; the fade-out begins at the sample of the change. @returns values for the processor */
  step(smoother: ParameterSmoother): Float64Array {
    const { values: current, mutedIndices } = this;
    const values = smoother.now;
    if (mutedIndices.length === 0) return values;
    this.previousGain = this.gain;
    this.fadeFrom = 0;
    const pending = this.pendingChange(values);
    if (this.gain > 0 && pending >= 0) {
      this.fadeFrom = this.gain === 1 ? smoother.offsetOf(pending) : 0;
      this.gain = Math.max(0, this.gain - (1 - this.fadeFrom / STEP_FRAMES) / FADE_STEPS);
      if (this.gain === 0) this.remainingMutedSteps = this.mutedSteps;
      this.copyOthers(values);
      return current;
    }
    for (let i = 0; i < current.length; i += 1) current[i] = values[i]!;
    if (this.remainingMutedSteps > 0) this.remainingMutedSteps -= 1;
    else if (this.gain < 1) this.gain = Math.min(1, this.gain + 1 / FADE_STEPS);
    return current;
  }

  /** Index of the first value that waits for the fade; -1 for none. */
  private pendingChange(values: Float64Array): number {
    const { values: current, mutedIndices } = this;
    for (let i = 0; i < mutedIndices.length; i += 1) {
      const index = mutedIndices[i]!;
      if (values[index] !== current[index]) return index;
    }
    return -1;
  }

  private copyOthers(values: Float64Array): void {
    const { values: current, mutedIndices } = this;
    let next = 0;
    for (let i = 0; i < current.length; i += 1) {
      if (mutedIndices[next] === i) next += 1;
      else current[i] = values[i]!;
    }
  }

  /** Applies the fade to the processor's output of the step. */
  apply({ left, right }: StereoBlock): void {
    if (this.previousGain === 1 && this.gain === 1) return;
    const { fadeFrom } = this;
    const from = smoothstep(this.previousGain);
    const step = (smoothstep(this.gain) - from) / (STEP_FRAMES - fadeFrom);
    let gain = from;
    for (let i = fadeFrom; i < STEP_FRAMES; i += 1) {
      gain += step;
      left[i] = left[i]! * gain;
      right[i] = right[i]! * gain;
    }
  }
}
