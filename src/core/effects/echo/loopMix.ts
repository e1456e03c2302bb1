import type { StereoBlock } from '../../dsp/blocks';
import type { SteadyGains } from './steadyLoop';
import { DENORMAL_GUARD } from '../../dsp/denormals';

/** Goals of the loop's gains at the end of a step. */
export interface LoopGains {
  input: number;
  feedback: number;
  hold: number;
  cross: number;
  /** Share of a side's input that enters its own line, and the other line. */
  own: number;
  other: number;
  /** Input gain of each line: ping-pong begins on one side. */
  left: number;
  right: number;
}

export const neutralGains = (): LoopGains => ({
  input: 1,
  feedback: 0,
  hold: 0,
  cross: 0,
  own: 1,
  other: 0,
  left: 1,
  right: 1,
});

/** Mixes input and feedback for the two lines; every gain is ramped linearly over the step. */
export class LoopMix {
  private readonly now = neutralGains();
  private readonly move = neutralGains();
  /** Samples into the step from which `hold` moves. */
  private holdFrom = 0;
  private readonly even: SteadyGains = { ownLeft: 1, otherLeft: 0, ownRight: 1, otherRight: 0, stays: 0, goesOver: 0 };

  jump(gains: LoopGains): void {
    const { now } = this;
    now.input = gains.input;
    now.feedback = gains.feedback;
    now.hold = gains.hold;
    now.cross = gains.cross;
    now.own = gains.own;
    now.other = gains.other;
    now.left = gains.left;
    now.right = gains.right;
  }

  /** True while no gain moves and nothing is held. */
  private get stands(): boolean {
    const { now, move } = this;
    return (
      now.hold === 0 &&
      move.hold === 0 &&
      move.input === 0 &&
      move.feedback === 0 &&
      move.cross === 0 &&
      move.own === 0 &&
      move.other === 0 &&
      move.left === 0 &&
      move.right === 0
    );
  }

  /**
   * Sets the goals for the coming `n` samples, which may be processed in several blocks.
   * @param holdFrom samples into them from which `hold` moves
   */
  begin(goal: LoopGains, n: number, holdFrom = 0): void {
    const { now, move } = this;
    this.holdFrom = holdFrom;
    move.input = (goal.input - now.input) / n;
    move.feedback = (goal.feedback - now.feedback) / n;
    move.hold = holdFrom < n ? (goal.hold - now.hold) / (n - holdFrom) : 0;
    move.cross = (goal.cross - now.cross) / n;
    move.own = (goal.own - now.own) / n;
    move.other = (goal.other - now.other) / n;
    move.left = (goal.left - now.left) / n;
    move.right = (goal.right - now.right) / n;
  }

  /** True while anything is held, or will be by the end of the step. */
  get holds(): boolean {
    return this.now.hold !== 0 || this.move.hold !== 0;
  }

  /** Sets all gains exactly to their goals, after a step. */
  end(goal: LoopGains): void {
    this.jump(goal);
  }

  /** True when no gain has to move, and nothing is held. */
  isSteadyAt(goal: LoopGains): boolean {
    const { now } = this;
    return (
      goal.hold === 0 &&
      now.hold === 0 &&
      now.input === goal.input &&
      now.feedback === goal.feedback &&
      now.cross === goal.cross &&
      now.own === goal.own &&
      now.other === goal.other &&
      now.left === goal.left &&
      now.right === goal.right
    );
  }

  /** The steady gains, multiplied out. */
  steadyGains(out: SteadyGains): void {
    const { input: level, feedback, cross, own, other, left, right } = this.now;
    out.ownLeft = own * left * level;
    out.otherLeft = other * left * level;
    out.ownRight = own * right * level;
    out.otherRight = other * right * level;
    out.stays = feedback * (1 - cross);
    out.goesOver = feedback * cross;
  }

  /**
   * Writes the input of both lines into `into`.
   * @param from first sample of `input` in this block
   * @param plain repeats as read
   * @param coloured the same after the loop's filter, drive and diffusion. While held, the plain repeats recirculate at
   * exactly unity and the input is shut.
   */
  mix(input: StereoBlock, from: number, n: number, plain: StereoBlock, coloured: StereoBlock, into: StereoBlock): void {
    if (this.stands) {
      this.mixEvenly(input, from, n, coloured, into);
      return;
    }
    const { now, move } = this;
    const holdAt = this.holdFrom - from;
    let { input: level, feedback, hold, cross, own, other, left, right } = now;
    const inLeft = input.left,
      inRight = input.right;
    const plainLeft = plain.left,
      plainRight = plain.right;
    const colourLeft = coloured.left,
      colourRight = coloured.right;
    const intoLeft = into.left,
      intoRight = into.right;
    const {
      input: dLevel,
      feedback: dFeedback,
      hold: dHold,
      cross: dCross,
      own: dOwn,
      other: dOther,
      left: dLeft,
      right: dRight,
    } = move;
    for (let i = 0; i < n; i += 1) {
      level += dLevel;
      feedback += dFeedback;
      if (i >= holdAt) hold += dHold;
      cross += dCross;
      own += dOwn;
      other += dOther;
      left += dLeft;
      right += dRight;
      const open = level * (1 - hold);
      const xl = inLeft[from + i]! * open;
      const xr = inRight[from + i]! * open;
      let yl = colourLeft[i]!;
      let yr = colourRight[i]!;
      let back = feedback;
      let over = cross;
      if (hold !== 0) {
        yl += (plainLeft[i]! - yl) * hold;
        yr += (plainRight[i]! - yr) * hold;
        back += (1 - feedback) * hold;
        over += ((cross > 0.5 ? 1 : 0) - cross) * hold;
      }
      intoLeft[i] = (own * xl + other * xr) * left + back * (yl + (yr - yl) * over) + DENORMAL_GUARD - DENORMAL_GUARD;
      intoRight[i] = (own * xr + other * xl) * right + back * (yr + (yl - yr) * over) + DENORMAL_GUARD - DENORMAL_GUARD;
    }
    now.input = level;
    now.feedback = feedback;
    now.hold = hold;
    now.cross = cross;
    now.own = own;
    now.other = other;
    now.left = left;
    now.right = right;
  }

  /** `mix` for steady gains, multiplied out once. */
  private mixEvenly(input: StereoBlock, from: number, n: number, coloured: StereoBlock, into: StereoBlock): void {
    this.steadyGains(this.even);
    const { ownLeft, otherLeft, ownRight, otherRight, stays, goesOver } = this.even;
    const inLeft = input.left,
      inRight = input.right;
    const colourLeft = coloured.left,
      colourRight = coloured.right;
    const intoLeft = into.left,
      intoRight = into.right;
    for (let i = 0; i < n; i += 1) {
      const xl = inLeft[from + i]!;
      const xr = inRight[from + i]!;
      const yl = colourLeft[i]!;
      const yr = colourRight[i]!;
      intoLeft[i] = ownLeft * xl + otherLeft * xr + stays * yl + goesOver * yr + DENORMAL_GUARD - DENORMAL_GUARD;
      intoRight[i] = ownRight * xr + otherRight * xl + stays * yr + goesOver * yl + DENORMAL_GUARD - DENORMAL_GUARD;
    }
  }
}
