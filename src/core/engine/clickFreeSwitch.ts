import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import type { Param } from '../params/param';

/** Steps for the way down, and for the way up: about 5 ms each. */
const FADE_STEPS = 4;
/**
 * Steps that it stays down after the change: what the change made of the sound passes meanwhile; longer for an effect
 * that holds its sound back.
 */
const MUTED_STEPS = 8;
const MUTED_STEPS_WITH_LATENCY = 20;

const smoothstep = (x: number): number => x * x * (3 - 2 * x);

/**
 * Holds back changes that cannot be made while an effect sounds: its treated sound sinks to nothing, the change is
 * made, and it comes back.
 */
export class ClickFreeSwitch {
  /** What the processor is given: every value as it is, those that mute on change as they were until the sound is silent. */
  readonly values: Float64Array;
  private readonly mutedIndices: readonly number[];
  private gain = 1;
  private previousGain = 1;
  private remainingMutedSteps = 0;
  private readonly mutedSteps: number;

  /** @param late true for an effect that looks ahead */
  constructor(params: readonly Param[], values: Float64Array, late: boolean) {
    this.mutedSteps = late ? MUTED_STEPS_WITH_LATENCY : MUTED_STEPS;
    this.mutedIndices = params.flatMap(({ mutesOnChange }, index) => (mutesOnChange ? [index] : []));
    this.values = this.mutedIndices.length > 0 ? Float64Array.from(values) : values;
  }

  /** Makes all changes at once; for a processor that is silent. */
  jump(values: Float64Array): void {
    this.values.set(values);
    this.gain = 1;
    this.previousGain = 1;
    this.remainingMutedSteps = 0;
  }

  /** Looks at the values of a step. @returns what the processor is given */
  step(values: Float64Array): Float64Array {
    const { values: given, mutedIndices: held } = this;
    if (held.length === 0) return values;
    this.previousGain = this.gain;
    if (this.gain > 0 && this.hasPendingChange(values)) {
      this.gain = Math.max(0, this.gain - 1 / FADE_STEPS);
      if (this.gain === 0) this.remainingMutedSteps = this.mutedSteps;
      this.copyOthers(values);
      return given;
    }
    for (let i = 0; i < given.length; i += 1) given[i] = values[i]!;
    if (this.remainingMutedSteps > 0) this.remainingMutedSteps -= 1;
    else if (this.gain < 1) this.gain = Math.min(1, this.gain + 1 / FADE_STEPS);
    return given;
  }

  private hasPendingChange(values: Float64Array): boolean {
    const { values: given, mutedIndices: held } = this;
    for (let i = 0; i < held.length; i += 1) if (values[held[i]!] !== given[held[i]!]) return true;
    return false;
  }

  private copyOthers(values: Float64Array): void {
    const { values: given, mutedIndices: held } = this;
    let next = 0;
    for (let i = 0; i < given.length; i += 1) {
      if (held[next] === i) next += 1;
      else given[i] = values[i]!;
    }
  }

  /** Sinks and raises what the processor made of the step. */
  apply({ left, right }: StereoBlock): void {
    if (this.previousGain === 1 && this.gain === 1) return;
    const from = smoothstep(this.previousGain);
    const step = (smoothstep(this.gain) - from) / STEP_FRAMES;
    let gain = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gain += step;
      left[i] = left[i]! * gain;
      right[i] = right[i]! * gain;
    }
  }
}
