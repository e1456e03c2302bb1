import * as z from 'zod';
import { slotsIn } from './find';
import { effectSchema, linkSchema, soundInfoSchema, type Link, type Piece, type Slot } from './piece';
import { migrateLists } from './versions/changedLists';
import { modulatorSchema } from '../automation/modulator';

/** Effects stored under a name, to be used in any piece; with the descriptions of the sounds they use. */
export const blockSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1).max(120),
  slots: z.array(effectSchema).min(1).max(32),
  sounds: soundInfoSchema,
  /** Their modulators and links. */
  modulators: z.array(modulatorSchema).max(64).optional(),
  links: z.array(linkSchema).max(500).optional(),
});
export type Block = z.infer<typeof blockSchema>;

/** A stored block of any version. @throws ZodError when it cannot be read */
export function readBlock(stored: unknown): Block {
  const document = z.record(z.string(), z.unknown()).parse(stored);
  return blockSchema.parse({ ...document, ...migrateLists(document) });
}

/** A block of effects of a piece. */
export function blockOf(piece: Piece, slots: readonly Slot[], id: string, name: string): Block {
  const own = slotsIn(slots).flatMap(({ sound }) => (sound && piece.sounds[sound] ? [sound] : []));
  const ids = new Set(slotsIn(slots).map((slot) => slot.id));
  // Links that were inactive over ranges of their piece are active throughout elsewhere.
  const links = piece.links
    .filter(({ target }) => target.kind === 'effect' && ids.has(target.effect))
    .map(({ rests: _rests, ...link }): Link => link);
  const modulators = piece.modulators.filter((one) => links.some(({ modulator }) => modulator === one.id));
  return {
    id,
    name,
    slots: [...slots],
    ...(links.length > 0 ? { links, modulators } : {}),
    sounds: Object.fromEntries(own.map((hash) => [hash, piece.sounds[hash]!])),
  };
}
