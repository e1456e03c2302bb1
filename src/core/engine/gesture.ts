import type { RunningChannel } from './channel';
import type { ParameterSmoother } from './parameterSmoother';

/** A hand on a rail: `slot` is null for the channel's own level and pan; `value` is an engine number. */
export interface Gesture {
  /**
   * `hold` sets the parameter to `to` until a `release`. `cancel` drops what was queued for the parameter before and
   * leaves its value.
   */
  readonly kind: 'hold' | 'release' | 'cancel';
  readonly channel: string;
  readonly slot: string | null;
  /** Index of the parameter in its row of values. */
  readonly value: number;
  readonly to: number;
  /** Place in the piece, in samples, at which it takes effect; 0 for at once. */
  readonly atSample: number;
  /** Asks the engine to tell at which sample it took effect; none when left out. */
  readonly tag?: number | undefined;
}

/** A gesture that has taken effect, at a sample of the piece. */
export interface AppliedGesture {
  readonly tag: number;
  readonly sample: number;
}

/**
 * Holds or lets go of the value that a gesture is for, wherever it runs.
 * @param offset samples into the present step at which it takes effect
 */
export function applyGesture(channels: readonly RunningChannel[], gesture: Gesture, offset: number): void {
  if (gesture.kind === 'cancel') return;
  for (let c = 0; c < channels.length; c += 1) {
    const channel = channels[c]!;
    if (channel.plan.id !== gesture.channel) continue;
    if (gesture.slot === null) touch(channel.rowOf(gesture.value), gesture, channel.indexIn(gesture.value), offset);
    const { every } = channel.chain;
    for (let s = 0; s < every.length; s += 1) {
      const slot = every[s]!;
      if (slot.plan.id !== gesture.slot) continue;
      touch(slot.rowOf(gesture.value), gesture, slot.indexIn(gesture.value), offset);
    }
  }
}

function touch(row: ParameterSmoother | undefined, gesture: Gesture, index: number, offset: number): void {
  if (gesture.kind === 'release') row?.release(index, true, offset);
  else row?.hold(index, gesture.to, offset);
}

/** To be called when the step is over in which a gesture took effect. */
export function clearGestureOffset(channels: readonly RunningChannel[], gesture: Gesture): void {
  for (let c = 0; c < channels.length; c += 1) {
    const channel = channels[c]!;
    if (channel.plan.id !== gesture.channel) continue;
    if (gesture.slot === null) channel.rowOf(gesture.value)?.clearOffset(channel.indexIn(gesture.value));
    const { every } = channel.chain;
    for (let s = 0; s < every.length; s += 1) {
      const slot = every[s]!;
      if (slot.plan.id === gesture.slot) slot.rowOf(gesture.value)?.clearOffset(slot.indexIn(gesture.value));
    }
  }
}
