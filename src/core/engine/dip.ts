import { STEP_FRAMES, type StereoRun } from '../effects/define';
import type { Param } from '../params/param';

/** Steps for the way down, and for the way up: about 5 ms each. */
const STEPS = 4;
/**
 * Steps that it stays down after the change: what the change made of the sound passes meanwhile; longer for an effect
 * that holds its sound back.
 */
const DOWN = 8;
const DOWN_LATE = 20;

const smooth = (x: number): number => x * x * (3 - 2 * x);

/**
 * Holds back changes that cannot be made while an effect sounds: its treated sound sinks to nothing, the change is
 * made, and it comes back.
 */
export class Dip {
  /** What the processor is given: every value as it is, those that dip as they were until the sound is down. */
  readonly given: Float64Array;
  private readonly held: readonly number[];
  private share = 1;
  private was = 1;
  private down = 0;
  private readonly stays: number;

  /** @param late true for an effect that looks ahead */
  constructor(params: readonly Param[], values: Float64Array, late: boolean) {
    this.stays = late ? DOWN_LATE : DOWN;
    this.held = params.flatMap(({ dips }, index) => (dips ? [index] : []));
    this.given = this.held.length > 0 ? Float64Array.from(values) : values;
  }

  /** Makes all changes at once; for a processor that is silent. */
  jump(values: Float64Array): void {
    this.given.set(values);
    this.share = 1;
    this.was = 1;
    this.down = 0;
  }

  /** Looks at the values of a step. @returns what the processor is given */
  step(values: Float64Array): Float64Array {
    const { given, held } = this;
    if (held.length === 0) return values;
    this.was = this.share;
    if (this.share > 0 && this.isWaiting(values)) {
      this.share = Math.max(0, this.share - 1 / STEPS);
      if (this.share === 0) this.down = this.stays;
      this.keepHeld(values);
      return given;
    }
    for (let i = 0; i < given.length; i += 1) given[i] = values[i]!;
    if (this.down > 0) this.down -= 1;
    else if (this.share < 1) this.share = Math.min(1, this.share + 1 / STEPS);
    return given;
  }

  private isWaiting(values: Float64Array): boolean {
    const { given, held } = this;
    for (let i = 0; i < held.length; i += 1) if (values[held[i]!] !== given[held[i]!]) return true;
    return false;
  }

  private keepHeld(values: Float64Array): void {
    const { given, held } = this;
    let next = 0;
    for (let i = 0; i < given.length; i += 1) {
      if (held[next] === i) next += 1;
      else given[i] = values[i]!;
    }
  }

  /** Sinks and raises what the processor made of the step. */
  apply({ left, right }: StereoRun): void {
    if (this.was === 1 && this.share === 1) return;
    const from = smooth(this.was);
    const step = (smooth(this.share) - from) / STEP_FRAMES;
    let gain = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gain += step;
      left[i] = left[i]! * gain;
      right[i] = right[i]! * gain;
    }
  }
}
