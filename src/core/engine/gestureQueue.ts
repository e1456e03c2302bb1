import type { RunningChannel } from './channel';
import { STEP_FRAMES } from '../dsp/blocks';
import { applyGesture, clearGestureOffset, type AppliedGesture, type Gesture } from './gesture';

const sameTarget = (a: Gesture, b: Gesture): boolean =>
  a.channel === b.channel && a.slot === b.slot && a.value === b.value;

/** Gestures in the order in which they came, each applied at its sample in the step that holds it. */
export class GestureQueue {
  private readonly queued: Gesture[] = [];
  /** Those of the last step that took effect after its first sample, and their offsets in samples. */
  private readonly midStep: Gesture[] = [];
  private readonly midStepOffsets: number[] = [];
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
   * @param stepStart sample of the piece at which the step begins
   * @param playing false applies all of them at once: the position does not advance to their samples
   */
  apply(channels: readonly RunningChannel[], stepStart: number, playing: boolean): void {
    const { queued, midStep } = this;
    for (let i = 0; i < midStep.length; i += 1) clearGestureOffset(channels, midStep[i]!);
    midStep.length = 0;
    this.midStepOffsets.length = 0;
    let waiting = 0;
    for (let i = 0; i < queued.length; i += 1) {
      const gesture = queued[i]!;
      const due = playing ? Math.max(0, Math.round(gesture.atSample - stepStart)) : 0;
      if (due >= STEP_FRAMES) {
        queued[waiting] = gesture;
        waiting += 1;
        continue;
      }
      if (gesture.kind === 'cancel') waiting = this.cancel(gesture, waiting);
      const offset = this.offsetAfterOthers(gesture, due);
      applyGesture(channels, gesture, offset);
      if (offset > 0) {
        this.midStep.push(gesture);
        this.midStepOffsets.push(offset);
      }
      if (gesture.tag !== undefined) this.applied.push({ tag: gesture.tag, sample: stepStart + offset });
    }
    queued.length = waiting;
  }

  /** Offset of a gesture in the step: of several for one parameter none takes effect before an earlier one. */
  private offsetAfterOthers(gesture: Gesture, due: number): number {
    let offset = due;
    for (let i = 0; i < this.midStep.length; i += 1)
      if (this.midStepOffsets[i]! > offset && sameTarget(this.midStep[i]!, gesture)) offset = this.midStepOffsets[i]!;
    return offset;
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
