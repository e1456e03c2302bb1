import * as z from 'zod';
import { formatDb, gainToDb } from '../../params/format';
import { defineEdit, EditRefused } from '../edit';
import { channelIds, channelName, channelOfTarget, reaches, sameTarget } from '../find';
import { returnSchema, sendSchema, type Send } from '../piece';
import { draftChannel } from './channels';
import { dropTargets } from './targets';

export const addReturn = defineEdit({
  name: 'addReturn',
  args: z.strictObject({ made: returnSchema }),
  label: ({ made }) => `Add return ${made.name}`,
  apply: (draft, { made }) => {
    if (channelIds(draft).includes(made.id)) throw new EditRefused('That return is in the piece already.');
    draft.returns.push(made);
  },
});

/** Adds returns that every track sends to at one level: a space shared by all of them, in one step. */
export const addSharedReturns = defineEdit({
  name: 'addSharedReturns',
  args: z.strictObject({ made: z.array(returnSchema).min(1).max(8), level: sendSchema.shape.level }),
  label: ({ made }) => `Add ${made.map(({ name }) => name).join(' and ')}, fed by every track`,
  apply: (draft, { made, level }) => {
    for (const one of made) addReturn.apply(draft, { made: one });
    for (const track of draft.tracks) track.sends.push(...made.map(({ id }) => ({ to: id, level, pre: false })));
  },
});

export const removeReturn = defineEdit({
  name: 'removeReturn',
  args: z.strictObject({ id: z.string() }),
  label: ({ id }, before) => `Remove return ${channelName(before, id)}`,
  apply: (draft, { id }) => {
    if (!draft.returns.some((candidate) => candidate.id === id))
      throw new EditRefused('That return is no longer in the piece.');
    draft.returns = draft.returns.filter((candidate) => candidate.id !== id);
    for (const channel of [...draft.tracks, ...draft.returns])
      channel.sends = channel.sends.filter((send) => send.to !== id);
    dropTargets(draft, (target) => channelOfTarget(target) === id || (target.kind === 'send' && target.to === id));
  },
});

/** Sets a send, and creates it when there is none. */
export const setSend = defineEdit({
  name: 'setSend',
  args: z.strictObject({
    channel: z.string(),
    to: z.string(),
    level: z.number().min(0).max(2).optional(),
    pre: z.boolean().optional(),
  }),
  label: ({ channel, to, level, pre }, before) => {
    const way = `${channelName(before, channel)} to ${channelName(before, to)}`;
    if (level !== undefined) return `Send ${way}: ${formatDb(gainToDb(level))}`;
    return `Send ${way} ${pre ? 'before' : 'after'} the fader`;
  },
  apply: (draft, { channel, to, level, pre }) => {
    const from = draftChannel(draft, channel);
    const target = draft.returns.find((candidate) => candidate.id === to);
    if (!target) throw new EditRefused('That return is no longer in the piece.');
    if (reaches(draft, to, channel)) {
      throw new EditRefused(
        `${from.name} cannot send to ${target.name}: ${to === channel ? 'a return cannot feed itself' : `${target.name} already reaches ${from.name}, and the sound would go round for ever`}.`,
      );
    }
    const send = from.sends.find((candidate) => candidate.to === to);
    if (!send) from.sends.push({ to, level: level ?? 1, pre: pre ?? false });
    else {
      if (level !== undefined) send.level = level;
      if (pre !== undefined) send.pre = pre;
    }
  },
});

export const removeSend = defineEdit({
  name: 'removeSend',
  args: z.strictObject({ channel: z.string(), to: z.string() }),
  label: ({ channel, to }, before) => `Remove send ${channelName(before, channel)} to ${channelName(before, to)}`,
  apply: (draft, { channel, to }) => {
    const from = draftChannel(draft, channel);
    from.sends = from.sends.filter((send) => send.to !== to);
    dropTargets(draft, (target) => sameTarget(target, { kind: 'send', channel, to }));
  },
});

/** Gives other channels the same sends; those that would make a loop are skipped. */
export const copySends = defineEdit({
  name: 'copySends',
  args: z.strictObject({ from: z.string(), to: z.array(z.string()).min(1) }),
  label: ({ from, to }, before) =>
    `Copy sends of ${channelName(before, from)} to ${to.length === 1 ? channelName(before, to[0]!) : `${to.length} channels`}`,
  apply: (draft, { from, to }) => {
    const sends: readonly Send[] = draftChannel(draft, from).sends.map((send) => ({ ...send }));
    for (const id of to) {
      const channel = draftChannel(draft, id);
      channel.sends = sends.filter((send) => !reaches(draft, send.to, id)).map((send) => ({ ...send }));
    }
  },
});
