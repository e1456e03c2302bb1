import type { RunningChannel } from './channel';
import { STEP_FRAMES } from '../dsp/blocks';
import { applyGesture, endGestureStep, type AppliedGesture, type Gesture } from './gesture';

const sameTarget = (a: Gesture, b: Gesture): boolean =>
  a.channel === b.channel && a.slot === b.slot && a.value === b.value;

/** Gestures in the order in which they came, each applied at its sample in the step that holds it. */
export class GestureQueue {
  private readonly queued: Gesture[] = [];
  /** Those of the last step that did not take effect at its beginning. */
  private readonly inStep: Gesture[] = [];
  private readonly inStepAt: number[] = [];
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
   * @param playing false applies all of them: no sample comes for which they could wait
   */
  apply(channels: readonly RunningChannel[], stepStart: number, playing: boolean): void {
    const { queued, inStep } = this;
    for (let i = 0; i < inStep.length; i += 1) endGestureStep(channels, inStep[i]!);
    inStep.length = 0;
    this.inStepAt.length = 0;
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
      const offset = this.afterOthers(gesture, due);
      applyGesture(channels, gesture, offset);
      if (offset > 0) {
        this.inStep.push(gesture);
        this.inStepAt.push(offset);
      }
      if (gesture.tag !== undefined) this.applied.push({ tag: gesture.tag, sample: stepStart + offset });
    }
    queued.length = waiting;
  }

  /** The sample of the step for a gesture: of several for one parameter none comes before those that came before it. */
  private afterOthers(gesture: Gesture, due: number): number {
    let offset = due;
    for (let i = 0; i < this.inStep.length; i += 1)
      if (this.inStepAt[i]! > offset && sameTarget(this.inStep[i]!, gesture)) offset = this.inStepAt[i]!;
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
