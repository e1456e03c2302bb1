import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import type { PlanSlot } from './plan';
import type { EngineContext } from './engineContext';
import { RunningSlot } from './slot';

/**
 * When effects are reordered, the sound between them fades out and in again over this many steps each.
 */
const DIP_STEPS = 16;

/** Smoothstep from 0 to 1. */
const smooth = (x: number): number => x * x * (3 - 2 * x);

/**
 * The effects of a channel in series. Removed ones ring out at their place; a new order takes effect at the silent
 * point of a fade.
 */
export class RunningChain {
  /** In the order of the plan, to which indices refer. */
  slots: RunningSlot[] = [];
  /** Those and all nested in them, in the order of the plan. */
  every: RunningSlot[] = [];
  /** Highest wet peak of the last step, and the peak of the chain's input. */
  wetPeak = 0;
  dryPeak = 0;
  /** In processing order, with removed ones that still ring out. */
  private line: RunningSlot[] = [];
  private next: RunningSlot[] | null = null;
  private passing = 1;
  /** Whether any of it can have latency: kept here since every channel is asked at every step. */
  private mayBeLate = false;

  /** @param depth nesting depth in other effects */
  constructor(
    private readonly context: EngineContext,
    private readonly depth = 0,
  ) {}

  get silent(): boolean {
    for (let i = 0; i < this.line.length; i += 1) if (!this.line[i]!.silent) return false;
    return true;
  }

  /** Its latency in samples. */
  get latency(): number {
    if (!this.mayBeLate) return 0;
    let sum = 0;
    for (let i = 0; i < this.line.length; i += 1) sum += this.line[i]!.latency;
    return sum;
  }

  /** @param entering true while sound may be passing: new effects then fade in */
  adopt(plans: readonly PlanSlot[], entering: boolean): void {
    const before = this.line;
    const known = [...before, ...this.slots.filter((slot) => !before.includes(slot))];
    this.slots = plans.map((plan) => {
      const kept = known.find((running) => running.plan.id === plan.id && running.plan.effect === plan.effect);
      if (!kept)
        return new RunningSlot(
          plan,
          this.context,
          this.context.mixer.scratchAt(this.depth),
          () => new RunningChain(this.context, this.depth + 1),
          entering,
        );
      kept.adopt(plan);
      return kept;
    });
    this.every = this.slots.flatMap((slot) => slot.every);
    const order = this.withLeaving(before);
    // Removed ones stay in processing order until the new order takes effect.
    this.mayBeLate = before.some((slot) => slot.mayBeLate) || order.some((slot) => slot.mayBeLate);
    if (keepsOrder(before, order)) {
      this.line = order;
      this.next = null;
    } else this.next = order;
    this.releaseUnused(known);
  }

  /** Makes the new order the processing order. */
  private takeNext(): void {
    if (!this.next) return;
    const before = this.line;
    this.line = this.next;
    this.next = null;
    this.releaseUnused(before);
  }

  /** Frees the buffers of effects that are neither in the plan nor audible any more. */
  private releaseUnused(known: readonly RunningSlot[]): void {
    for (let i = 0; i < known.length; i += 1) {
      const slot = known[i]!;
      if (!this.line.includes(slot) && !this.next?.includes(slot) && !this.slots.includes(slot)) slot.release();
    }
  }

  /** The new order, with removed effects at their places until they have rung out. */
  private withLeaving(before: readonly RunningSlot[]): RunningSlot[] {
    const order = [...this.slots];
    before.forEach((slot, index) => {
      if (this.slots.includes(slot) || slot.silent) return;
      slot.leave();
      order.splice(Math.min(index, order.length), 0, slot);
    });
    return order;
  }

  locate(): void {
    this.takeNext();
    this.passing = 1;
    for (const slot of this.slots) slot.locate();
  }

  /** Clears all sound and returns to the state at the start of playing. */
  forget(): void {
    for (const slot of this.line) slot.forget();
    this.wetPeak = 0;
    this.dryPeak = 0;
    this.locate();
  }

  /** Processes the bus in place. @returns true when it is silent afterwards */
  process(bus: StereoBlock, busSilent: boolean): boolean {
    const { matcher, matched, time } = this.context;
    const from = this.passing;
    const to = this.next ? Math.max(0, from - 1 / DIP_STEPS) : Math.min(1, from + 1 / DIP_STEPS);
    this.passing = to;
    const dipping = from < 1 || to < 1;
    let silent = busSilent;
    let wetPeak = 0;
    this.dryPeak = 0;
    const { latency: entered } = time;
    for (let i = 0; i < this.line.length; i += 1) {
      const slot = this.line[i]!;
      if (dipping) scale(bus, smooth(from), smooth(to));
      const { latency } = slot;
      const isMatched = slot === matched;
      if (isMatched) matcher.listenBefore(bus);
      slot.process(bus, silent);
      if (isMatched) matcher.matchAfter(bus);
      time.latency += latency;
      if (silent && !slot.silent) silent = false;
      if (slot.wetPeak > wetPeak) wetPeak = slot.wetPeak;
      if (i === 0) this.dryPeak = slot.dryPeak;
    }
    time.latency = entered;
    if (dipping) scale(bus, smooth(from), smooth(to));
    this.wetPeak = wetPeak;
    if (to === 0) this.takeNext();
    return silent;
  }

  /** Frees the pooled buffers of its effects; it must not be used afterwards. */
  release(): void {
    const all = this.next ? [...this.line, ...this.next.filter((slot) => !this.line.includes(slot))] : this.line;
    for (const slot of all) slot.release();
  }
}

/** True when the effects that stay are in the same order as before. */
function keepsOrder(before: readonly RunningSlot[], after: readonly RunningSlot[]): boolean {
  const stayed = after.filter((slot) => before.includes(slot));
  return before.filter((slot) => after.includes(slot)).every((slot, i) => slot === stayed[i]);
}

function scale({ left, right }: StereoBlock, from: number, to: number): void {
  const step = (to - from) / STEP_FRAMES;
  let gain = from;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    gain += step;
    left[i] = left[i]! * gain;
    right[i] = right[i]! * gain;
  }
}
