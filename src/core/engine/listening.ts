import type { RunningChannel } from './channel';
import type { Hear, RunningSlot } from './slot';

/**
 * What is listened to for comparing: one effect, every effect of a channel when `slot` is null, or of the piece when
 * `channel` is.
 */
export interface Listening {
  readonly channel: string | null;
  readonly slot: string | null;
  readonly hear: Hear;
  readonly matched: boolean;
}

/** Has every effect heard as it is listened to. @returns the one that is listened to by itself */
export function listenTo(channels: readonly RunningChannel[], { channel, slot, hear }: Listening): RunningSlot | null {
  let alone: RunningSlot | null = null;
  for (const running of channels) {
    for (const effect of running.chain.every) {
      const here = channel === null || running.plan.id === channel;
      const heard = here && (slot === null || effect.plan.id === slot);
      effect.hear = heard ? hear : 'mix';
      if (heard && effect.plan.id === slot) alone = effect;
    }
  }
  return alone;
}
