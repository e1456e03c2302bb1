import { STEP_FRAMES } from '../dsp/blocks';
import { onePoleCoefficient } from '../dsp/onePole';
import { linkOffset, type LinkTransfer } from '../automation/linkTransfer';
import type { NumberParam, Param } from '../params/param';
import { paramAtPosition, paramPosition } from '../params/resolve';

/**
 * The values of one processor on their way: where each is now, where it shall go, and whether a hand is on it. What is
 * heard follows, in this order: a hand on the rail, the lane, the base value of the plan; links turn it to both sides
 * of that.
 */
export class ParameterSmoother {
  readonly now: Float64Array;
  /** How far each has come on its way, which is where it is unless it is a rate in a tempo that moves. */
  private readonly on: Float64Array;
  private base: Float64Array;
  private readonly goal: Float64Array;
  private readonly shares: Float64Array;
  private readonly held: Uint8Array;
  private readonly laned: Uint8Array;
  private readonly linked: Uint8Array;
  private readonly turns: Float64Array;
  private follows: Int8Array | null = null;
  private ratio = 1;
  /** Something may not be where it shall be. */
  private moving = true;

  constructor(
    private readonly params: readonly Param[],
    base: Float64Array,
    sampleRate: number,
  ) {
    this.base = base;
    this.goal = Float64Array.from(base);
    this.now = Float64Array.from(base);
    this.on = Float64Array.from(base);
    this.held = new Uint8Array(base.length);
    this.laned = new Uint8Array(base.length);
    this.linked = new Uint8Array(base.length);
    this.turns = new Float64Array(base.length);
    this.shares = Float64Array.from(params, (param) =>
      param.kind === 'number' ? onePoleCoefficient(param.smoothingSeconds, STEP_FRAMES, sampleRate) : 1,
    );
  }

  /** New base values; what is held or has a lane keeps its own. */
  rebase(base: Float64Array): void {
    this.base = base;
    this.moving = true;
    for (let i = 0; i < base.length; i += 1) if (!this.held[i] && !this.laned[i]) this.goal[i] = base[i]!;
  }

  /** A hand sets a value and stays on it. */
  hold(index: number, value: number): void {
    this.held[index] = 1;
    this.moving = true;
    this.goal[index] = value;
  }

  /** The hand lets go; `keep` leaves the value until the plan brings the new base. */
  release(index: number, keep: boolean): void {
    this.held[index] = 0;
    this.moving = true;
    if (!keep && !this.laned[index]) this.goal[index] = this.base[index]!;
  }

  /** Forgets which values have links; those that still have some are told again at once. */
  clearLinks(): void {
    this.linked.fill(0);
    this.moving = true;
    this.turns.fill(0);
  }

  /** Forgets how far links turn values just now. */
  stillLinks(): void {
    for (let i = 0; i < this.turns.length; i += 1) this.turns[i] = 0;
  }

  /**
   * A link turns a value along its rail, on top of what other links do.
   * @param turn where its modulator stands, -1 to 1
   */
  turn(index: number, turn: number, push: LinkTransfer): void {
    this.linked[index] = 1;
    this.moving = true;
    // Where it stands is only asked for by a link with a range of its own.
    const at = push.low > 0 || push.high < 1 ? paramPosition(this.params[index]!, this.wanted(index)) : 0;
    this.turns[index] = this.turns[index]! + linkOffset(at, turn, push);
  }

  /**
   * A tempo that moves makes lengths longer and rates slower.
   * @param follows 1 for lengths, -1 for rates, 0 for none
   * @param ratio of a beat's length here to that in the unmoved tempo
   */
  followTempo(follows: Int8Array, ratio: number): void {
    if (ratio === this.ratio && follows === this.follows) return;
    this.follows = follows;
    this.ratio = ratio;
    this.moving = true;
  }

  /**
   * Where hand, lane or base want a value at this tempo; rates before they follow it. What a hand holds is as the hand
   * has it.
   */
  private wanted(index: number): number {
    const goal = this.goal[index]!;
    const way = this.follows === null || this.ratio === 1 ? 0 : this.follows[index]!;
    const param = this.params[index]!;
    return way > 0 && !this.held[index] && param.kind === 'number' ? within(goal * this.ratio, param) : goal;
  }

  /** Where a linked value shall be: where hand, lane or base want it, turned. */
  private turned(index: number): number {
    const param = this.params[index]!;
    const at = paramPosition(param, this.wanted(index)) + this.turns[index]!;
    return paramAtPosition(param, at < 0 ? 0 : at > 1 ? 1 : at);
  }

  /** Forgets which values have lanes; those that still have one are told again at once. */
  clearLanes(): void {
    this.moving = true;
    for (let i = 0; i < this.laned.length; i += 1) {
      if (this.laned[i] && !this.held[i]) this.goal[i] = this.base[i]!;
      this.laned[i] = 0;
    }
  }

  /** A lane's value, as a place on the rail. */
  fromLane(index: number, position: number): void {
    this.laned[index] = 1;
    if (this.held[index]) return;
    const goal = paramAtPosition(this.params[index]!, position);
    if (goal === this.goal[index]) return;
    this.goal[index] = goal;
    this.moving = true;
  }

  /** Moves every value towards its goal by one step. */
  step(): void {
    if (!this.moving) return;
    const { now, on, linked, shares } = this;
    let moving = false;
    for (let i = 0; i < now.length; i += 1) {
      const to = linked[i] ? this.turned(i) : this.wanted(i);
      const at = on[i]!;
      if (at === to) {
        now[i] = at;
        continue;
      }
      const next = at + (to - at) * shares[i]!;
      const away = to - next;
      const slack = 1e-6 * (to < 0 ? -to : to) + 1e-7;
      const there = away < slack && away > -slack;
      on[i] = there ? to : next;
      now[i] = on[i]!;
      if (!there) moving = true;
    }
    this.moving = moving;
    if (this.follows !== null && this.ratio !== 1) this.followRates(this.follows);
  }

  /** Rates follow at once: a lag would add up to a turn that comes ever later. */
  private followRates(follows: Int8Array): void {
    for (let i = 0; i < this.now.length; i += 1) {
      const param = this.params[i]!;
      if (follows[i]! < 0 && param.kind === 'number')
        this.now[i] = this.held[i] ? this.on[i]! : within(this.on[i]! / this.ratio, param);
    }
  }

  jump(): void {
    for (let i = 0; i < this.now.length; i += 1)
      this.now[i] = this.on[i] = this.linked[i] ? this.turned(i) : this.wanted(i);
    if (this.follows !== null && this.ratio !== 1) this.followRates(this.follows);
  }
}

const within = (value: number, { min, max }: NumberParam): number => (value < min ? min : value > max ? max : value);
