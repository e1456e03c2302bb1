import type { StereoBlock } from '../../dsp/blocks';

/** A gain ramp along a smoothstep. */
export class GainRamp {
  now: number;
  goal: number;
  private from: number;
  /** Share of the ramp that has passed, and its increment per sample. */
  private progress = 1;
  private step = 0;

  constructor(at: number) {
    this.now = at;
    this.goal = at;
    this.from = at;
  }

  get moving(): boolean {
    return this.progress < 1;
  }

  jump(to: number): void {
    this.now = to;
    this.goal = to;
    this.progress = 1;
  }

  /** Starts a ramp from the present gain to `goal` that takes `frames`. */
  aim(goal: number, frames: number): void {
    this.from = this.now;
    this.goal = goal;
    this.progress = this.now === goal ? 1 : 0;
    this.step = 1 / frames;
  }

  /** Advances by a sample and returns the gain. */
  next(): number {
    if (this.progress >= 1) return this.now;
    this.progress += this.step;
    this.now =
      this.progress >= 1
        ? this.goal
        : this.from + (this.goal - this.from) * this.progress * this.progress * (3 - 2 * this.progress);
    return this.now;
  }

  /** Adds [from, to) of a block, times the gain, to another. */
  addInto(input: StereoBlock, output: StereoBlock, from: number, to: number): void {
    const { left, right } = input;
    const { left: toLeft, right: toRight } = output;
    if (!this.moving) {
      const gain = this.now;
      for (let i = from; i < to; i += 1) {
        toLeft[i] = toLeft[i]! + gain * left[i]!;
        toRight[i] = toRight[i]! + gain * right[i]!;
      }
      return;
    }
    for (let i = from; i < to; i += 1) {
      const gain = this.next();
      toLeft[i] = toLeft[i]! + gain * left[i]!;
      toRight[i] = toRight[i]! + gain * right[i]!;
    }
  }
}
