import * as z from 'zod';
import { defineEdit } from '../edit';
import { blockSchema } from '../block';
import { channelName } from '../find';
import { carryLinks } from './carryLinks';
import { copyOf, draftChainAt, fitted, insertSlots, insideSchema } from './chain';
import { dropIdle } from './targets';

/** Puts the effects of a block into a chain, under ids made from `id`. */
export const placeBlock = defineEdit({
  name: 'placeBlock',
  args: z.strictObject({
    channel: z.string(),
    block: blockSchema,
    at: z.number().int().min(0),
    id: z.string().max(50),
    inside: insideSchema.optional(),
  }),
  label: ({ channel, block }, before) => `Add block ${block.name} to ${channelName(before, channel)}`,
  apply: (draft, { channel, block, at, id, inside }) => {
    const slots = block.slots.map((slot, index) => copyOf(slot, `${id}-${index}`));
    insertSlots(
      draft,
      draftChainAt(draft, channel, inside),
      at,
      slots.map((slot) => (inside ? slot : fitted(draft, channel, slot))),
    );
    Object.assign(draft.sounds, block.sounds);
    const { modulators = [], links = [] } = block;
    // Each copy has modulators of its own, so that two of them can be set differently.
    const made = new Map(modulators.map((one, i) => [one.id, `${id}-turns${i}`]));
    draft.modulators.push(...modulators.map((one) => ({ ...one, id: made.get(one.id)! })));
    carryLinks(
      draft,
      links.filter(({ modulator }) => made.has(modulator)),
      block.slots,
      slots,
      channel,
      (one) => made.get(one)!,
    );
    dropIdle(draft);
  },
});
