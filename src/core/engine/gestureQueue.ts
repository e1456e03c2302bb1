import type { RunningChannel } from './channel';
import { applyGesture, type AppliedGesture, type Gesture } from './gesture';

const sameTarget = (a: Gesture, b: Gesture): boolean =>
  a.channel === b.channel && a.slot === b.slot && a.value === b.value;

/** Gestures in the order in which they came, each applied at the step that holds its sample. */
export class GestureQueue {
  private readonly queued: Gesture[] = [];
  /** Tagged ones that have taken effect, until they are taken. */
  private applied: AppliedGesture[] = [];

  push(gesture: Gesture): void {
    this.queued.push(gesture);
  }

  /** Tagged gestures that have taken effect since last asked; null for none. */
  takeApplied(): readonly AppliedGesture[] | null {
    if (this.applied.length === 0) return null;
    const { applied } = this;
    this.applied = [];
    return applied;
  }

  /**
   * Applies what is due.
   * @param stepStart sample of the piece at which the step begins, which tagged ones are told
   * @param until gestures for later samples go on waiting; Infinity while nothing plays
   */
  apply(channels: readonly RunningChannel[], stepStart: number, until: number): void {
    const { queued } = this;
    let waiting = 0;
    for (let i = 0; i < queued.length; i += 1) {
      const gesture = queued[i]!;
      if (gesture.atSample > until) {
        queued[waiting] = gesture;
        waiting += 1;
        continue;
      }
      if (gesture.kind === 'cancel') waiting = this.cancel(gesture, waiting);
      applyGesture(channels, gesture);
      if (gesture.tag !== undefined) this.applied.push({ tag: gesture.tag, sample: stepStart });
    }
    queued.length = waiting;
  }

  /** Drops gestures that wait for the same parameter. @returns how many of the first `count` go on waiting */
  private cancel(gesture: Gesture, count: number): number {
    const { queued } = this;
    let kept = 0;
    for (let i = 0; i < count; i += 1) {
      if (sameTarget(queued[i]!, gesture)) continue;
      queued[kept] = queued[i]!;
      kept += 1;
    }
    return kept;
  }
}
