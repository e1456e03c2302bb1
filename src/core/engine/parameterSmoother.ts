import { STEP_FRAMES } from '../dsp/blocks';
import { onePoleCoefficient, partialCoefficient } from '../dsp/onePole';
import { linkOffset, type LinkTransfer } from '../automation/linkTransfer';
import type { NumberParam, Param } from '../params/param';
import { paramAtPosition, paramPosition } from '../params/resolve';

/**
 * Smooths the parameter values of one processor towards their targets. A target is, in this order, what a touched rail
 * holds, what a lane says, or the base value of the plan; links add their offset to it.
 */
export class ParameterSmoother {
  readonly now: Float64Array;
  /** Smoothed values before the tempo scales rates. */
  private readonly on: Float64Array;
  private base: Float64Array;
  private readonly goal: Float64Array;
  private readonly shares: Float64Array;
  private readonly held: Uint8Array;
  private readonly laned: Uint8Array;
  private readonly linked: Uint8Array;
  private readonly linkOffsets: Float64Array;
  /** Samples into the present step at which each target was set; 0 for at its beginning, or before. */
  private readonly offsets: Float64Array;
  /** Samples of the last step by which a deferred value is behind. */
  private readonly behind: Float64Array;
  private follows: Int8Array | null = null;
  /** Length of a bar here over its length at the piece's own tempo and metre. */
  private barRatio = 1;
  private ratio = 1;
  /** False once every value has reached its target. */
  private moving = true;

  /**
   * @param defers whether a value that is set within a step stands still until its end and catches up in the next, so
   * that nothing changes before it is set; all others go in that step as far as they would have gone from there
   */
  constructor(
    private readonly params: readonly Param[],
    base: Float64Array,
    sampleRate: number,
    private readonly defers: readonly boolean[] | null = null,
  ) {
    this.base = base;
    this.goal = Float64Array.from(base);
    this.now = Float64Array.from(base);
    this.on = Float64Array.from(base);
    this.held = new Uint8Array(base.length);
    this.laned = new Uint8Array(base.length);
    this.linked = new Uint8Array(base.length);
    this.linkOffsets = new Float64Array(base.length);
    this.offsets = new Float64Array(base.length);
    this.behind = new Float64Array(base.length);
    this.shares = Float64Array.from(params, (param) =>
      param.kind === 'number' ? onePoleCoefficient(param.smoothingSeconds, STEP_FRAMES, sampleRate) : 1,
    );
  }

  /** Takes new base values; values that are held or have a lane keep theirs. */
  rebase(base: Float64Array): void {
    this.base = base;
    this.moving = true;
    for (let i = 0; i < base.length; i += 1) if (!this.held[i] && !this.laned[i]) this.goal[i] = base[i]!;
  }

  /** Sets a value while its rail is touched, from so many samples into the present step on. */
  hold(index: number, value: number, offset = 0): void {
    // An unchanged target has no offset, as in a lane: an offset would hold up what a link does with it.
    if (value !== this.goal[index]) this.offsets[index] = offset;
    else if (!this.held[index]) this.offsets[index] = 0;
    this.held[index] = 1;
    this.moving = true;
    this.goal[index] = value;
  }

  /** Ends `hold`, `offset` samples into the present step; with `keep` the value stays until the next base values. */
  release(index: number, keep: boolean, offset = 0): void {
    this.held[index] = 0;
    this.moving = true;
    if (this.laned[index]) this.offsets[index] = offset;
    if (!keep && !this.laned[index]) this.goal[index] = this.base[index]!;
  }

  /** Removes all links; those that remain are set again in the same step. */
  clearLinks(): void {
    this.linked.fill(0);
    this.moving = true;
    this.linkOffsets.fill(0);
  }

  /** Sets the offsets of all links to zero, before they are added up anew. */
  clearLinkOffsets(): void {
    for (let i = 0; i < this.linkOffsets.length; i += 1) this.linkOffsets[i] = 0;
  }

  /**
   * Adds a link's offset to those of other links.
   * @param output output of its modulator, -1 to 1
   */
  addLinkOffset(index: number, output: number, transfer: LinkTransfer): void {
    this.linked[index] = 1;
    this.moving = true;
    // Where it stands is only asked for by a link with a range of its own.
    const at = transfer.low > 0 || transfer.high < 1 ? paramPosition(this.params[index]!, this.wanted(index)) : 0;
    this.linkOffsets[index] = this.linkOffsets[index]! + linkOffset(at, output, transfer);
  }

  /**
   * Scales note-value times and rates by the present tempo and metre.
   * @param follows 1 for lengths, -1 for rates, of bars 2 and -2; 0 for none
   * @param ratio length of a beat here over its length at the piece's own tempo
   * @param barRatio beats of a bar here over those of the piece's own
   */
  followTempo(follows: Int8Array, ratio: number, barRatio: number): void {
    if (ratio === this.ratio && ratio * barRatio === this.barRatio && follows === this.follows) return;
    this.follows = follows;
    this.ratio = ratio;
    this.barRatio = ratio * barRatio;
    this.moving = true;
  }

  /** Length of the note that a value follows over what it is in the piece's own tempo and metre. */
  private noteRatio(way: number): number {
    return way === 1 || way === -1 ? this.ratio : this.barRatio;
  }

  /** Whether note values have another length here than in the piece's own tempo and metre. */
  private get scalesNotes(): boolean {
    return this.follows !== null && (this.ratio !== 1 || this.barRatio !== 1);
  }

  /**
   * Target by touch, lane or base value at the present tempo; rates are not scaled yet. A held value is not scaled.
   */
  private wanted(index: number): number {
    const goal = this.goal[index]!;
    const way = this.scalesNotes ? this.follows![index]! : 0;
    const param = this.params[index]!;
    return way > 0 && !this.held[index] && param.kind === 'number' ? within(goal * this.noteRatio(way), param) : goal;
  }

  /** Target of a linked value: `wanted` plus the links' offset. */
  private turned(index: number): number {
    const param = this.params[index]!;
    const at = paramPosition(param, this.wanted(index)) + this.linkOffsets[index]!;
    return paramAtPosition(param, at < 0 ? 0 : at > 1 ? 1 : at);
  }

  /** Removes all lanes; those that remain are set again in the same step. */
  clearLanes(): void {
    this.moving = true;
    for (let i = 0; i < this.laned.length; i += 1) {
      if (this.laned[i] && !this.held[i]) this.goal[i] = this.base[i]!;
      this.laned[i] = 0;
      this.offsets[i] = 0;
    }
  }

  /** Sets a lane's value, as a normalised position. */
  fromLanePosition(index: number, position: number): void {
    this.fromLane(index, this.held[index] ? 0 : paramAtPosition(this.params[index]!, position));
  }

  /** Sets a lane's value, as a number of the engine. */
  fromLane(index: number, goal: number): void {
    this.laned[index] = 1;
    if (this.held[index]) return;
    if (goal === this.goal[index]) {
      this.offsets[index] = 0;
      return;
    }
    this.goal[index] = goal;
    this.moving = true;
  }

  /** Sets how many samples into the present step a lane jumps to its value; ignored while a hand holds the value. */
  setLaneOffset(index: number, frames: number): void {
    if (!this.held[index]) this.offsets[index] = frames;
  }

  /** To be called when the step is over in which a gesture or a lane set a target. */
  clearOffset(index: number): void {
    this.offsets[index] = 0;
  }

  /** How many samples into the present step a target was set. */
  offsetOf(index: number): number {
    return this.offsets[index]!;
  }

  /** Smooths every value over one step, or over the time since its target was set. */
  step(): void {
    if (!this.moving) return;
    const { now, on, linked, offsets } = this;
    let moving = false;
    for (let i = 0; i < now.length; i += 1) {
      const to = linked[i] ? this.turned(i) : this.wanted(i);
      const at = on[i]!;
      if (at === to) {
        now[i] = at;
        this.behind[i] = 0;
        continue;
      }
      if (offsets[i] !== 0 && this.defers?.[i]) {
        this.behind[i] = STEP_FRAMES - offsets[i]!;
        now[i] = at;
        moving = true;
        continue;
      }
      const next = at + (to - at) * this.shareOf(i);
      const away = to - next;
      const slack = 1e-6 * (to < 0 ? -to : to) + 1e-7;
      const there = away < slack && away > -slack;
      on[i] = there ? to : next;
      now[i] = on[i]!;
      if (!there) moving = true;
    }
    this.moving = moving;
    if (this.scalesNotes) this.followRates(this.follows!);
  }

  /** Share of its way that a value goes in this step. */
  private shareOf(index: number): number {
    const frames = STEP_FRAMES - this.offsets[index]! + this.behind[index]!;
    this.behind[index] = 0;
    return partialCoefficient(this.shares[index]!, frames / STEP_FRAMES);
  }

  /** Rates are scaled at once: smoothing would delay an oscillator's phase more and more. */
  private followRates(follows: Int8Array): void {
    for (let i = 0; i < this.now.length; i += 1) {
      const param = this.params[i]!;
      if (follows[i]! < 0 && param.kind === 'number')
        this.now[i] = this.held[i] ? this.on[i]! : within(this.on[i]! / this.noteRatio(follows[i]!), param);
    }
  }

  jump(): void {
    this.behind.fill(0);
    for (let i = 0; i < this.now.length; i += 1)
      this.now[i] = this.on[i] = this.linked[i] ? this.turned(i) : this.wanted(i);
    if (this.scalesNotes) this.followRates(this.follows!);
  }
}

const within = (value: number, { min, max }: NumberParam): number => (value < min ? min : value > max ? max : value);
