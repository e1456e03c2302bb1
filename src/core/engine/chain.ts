import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import type { PlanSlot } from './plan';
import type { EngineContext } from './engineContext';
import { RunningSlot } from './slot';

/**
 * When effects change places, what passes between them sinks to nothing and comes back over this many steps each way.
 */
const DIP_STEPS = 16;

/** From 0 to 1 without a corner at either end. */
const smooth = (x: number): number => x * x * (3 - 2 * x);

/**
 * The effects of a channel one after another. Those taken away ring out where they stood; a new order is taken while
 * nothing passes.
 */
export class RunningChain {
  /** In the order of the plan, which is what indexes mean. */
  slots: RunningSlot[] = [];
  /** Those and all that lie within them, as plans count them. */
  every: RunningSlot[] = [];
  /** Highest treated peak of the last step, and what entered the first effect. */
  wetPeak = 0;
  dryPeak = 0;
  /** In the order in which they sound, with those that only ring out. */
  private line: RunningSlot[] = [];
  private next: RunningSlot[] | null = null;
  private passing = 1;
  /** Whether any of it may be late at all: asked of every channel at every step, and answered by few. */
  private mayBeLate = false;

  /** @param depth how many effects it lies within */
  constructor(
    private readonly context: EngineContext,
    private readonly depth = 0,
  ) {}

  get silent(): boolean {
    for (let i = 0; i < this.line.length; i += 1) if (!this.line[i]!.silent) return false;
    return true;
  }

  /** Samples by which it is late. */
  get latency(): number {
    if (!this.mayBeLate) return 0;
    let sum = 0;
    for (let i = 0; i < this.line.length; i += 1) sum += this.line[i]!.latency;
    return sum;
  }

  /** @param entering true while sound may be passing: new effects then come up from nothing */
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
    // Those that are gone sound on until the new order is taken.
    this.mayBeLate = before.some((slot) => slot.mayBeLate) || order.some((slot) => slot.mayBeLate);
    if (keepsOrder(before, order)) {
      this.line = order;
      this.next = null;
    } else this.next = order;
    this.releaseUnused(known);
  }

  /** The new order becomes the one that sounds. */
  private takeNext(): void {
    if (!this.next) return;
    const before = this.line;
    this.line = this.next;
    this.next = null;
    this.releaseUnused(before);
  }

  /** Those of some effects that are neither in the plan nor sound any more return what they borrowed. */
  private releaseUnused(known: readonly RunningSlot[]): void {
    for (let i = 0; i < known.length; i += 1) {
      const slot = known[i]!;
      if (!this.line.includes(slot) && !this.next?.includes(slot) && !this.slots.includes(slot)) slot.release();
    }
  }

  /** The new order, with what is gone from it still at its place until it has rung out. */
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

  /** Loses all sound, and stands as at the start of playing. */
  forget(): void {
    for (const slot of this.line) slot.forget();
    this.wetPeak = 0;
    this.dryPeak = 0;
    this.locate();
  }

  /** Treats the bus in place. @returns true when it is silent afterwards */
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

  /** Returns what its effects borrowed; it must not be used afterwards. */
  release(): void {
    const all = this.next ? [...this.line, ...this.next.filter((slot) => !this.line.includes(slot))] : this.line;
    for (const slot of all) slot.release();
  }
}

/** True when those that stay stand in the same order as before. */
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
