import type { RunningChannel } from './channel';

/** Connects the sidechain inputs of effects to their channels; to be called after every change of the plan. */
export function connectSidechains(channels: readonly RunningChannel[]): void {
  const wanted = new Set(channels.flatMap((channel) => channel.chain.every.map((slot) => slot.plan.side)));
  for (const channel of channels) channel.isOverheard = wanted.has(channel.plan.id);
  const runs = new Map(channels.map((channel) => [channel.plan.id, channel.overheard]));
  for (const channel of channels) for (const slot of channel.chain.every) slot.listenTo(runs);
}
