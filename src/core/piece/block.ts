import * as z from 'zod';
import { slotsIn } from './find';
import { effectSchema, soundInfoSchema, type Piece, type Slot } from './piece';

/** Effects kept under a name, to be used again in any piece; with what is known of the sounds they work with. */
export const blockSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1).max(120),
  slots: z.array(effectSchema).min(1).max(32),
  sounds: soundInfoSchema,
});
export type Block = z.infer<typeof blockSchema>;

/** A block of effects of a piece. */
export function blockOf(piece: Piece, slots: readonly Slot[], id: string, name: string): Block {
  const own = slotsIn(slots).flatMap(({ sound }) => (sound && piece.sounds[sound] ? [sound] : []));
  return { id, name, slots: [...slots], sounds: Object.fromEntries(own.map((hash) => [hash, piece.sounds[hash]!])) };
}
