/** A gain on its way to another along a straight line. */
export class GainRamp {
  now: number;
  goal: number;
  private step = 0;

  constructor(at: number) {
    this.now = at;
    this.goal = at;
  }

  get moving(): boolean {
    return this.now !== this.goal;
  }

  jump(to: number): void {
    this.now = to;
    this.goal = to;
  }

  /** Takes `frames` to get from here to `goal`. */
  aim(goal: number, frames: number): void {
    this.goal = goal;
    this.step = (goal - this.now) / frames;
  }

  /** The gain one sample on. */
  next(): number {
    if (this.now === this.goal) return this.now;
    const next = this.now + this.step;
    this.now = this.step === 0 || (this.step > 0 ? next >= this.goal : next <= this.goal) ? this.goal : next;
    return this.now;
  }
}
