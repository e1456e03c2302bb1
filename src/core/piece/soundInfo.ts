import * as z from 'zod';
import { nameSchema } from './fields';

/** Description of a sound, without its samples. */
export const soundSchema = z.strictObject({
  name: nameSchema,
  frames: z.number().int().positive(),
  sampleRate: z.number().int().min(8000).max(384_000),
  channels: z.union([z.literal(1), z.literal(2)]),
  /** First and last frame of a seamless loop. */
  loop: z.strictObject({ first: z.number().int().min(0), last: z.number().int().positive() }).optional(),
});
export type SoundInfo = z.infer<typeof soundSchema>;
