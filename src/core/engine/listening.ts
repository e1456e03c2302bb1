import type { RunningChannel } from './channel';
import type { Hear, RunningSlot } from './slot';

/**
 * What is auditioned for comparison: one effect; all effects of a channel if `slot` is null; all of the piece if
 * `channel` is null, too.
 */
export interface Listening {
  readonly channel: string | null;
  readonly slot: string | null;
  readonly hear: Hear;
  readonly matched: boolean;
}

/** Sets the audition mode of every effect. @returns the effect that is auditioned alone, if any */
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
