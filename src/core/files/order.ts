import * as z from 'zod';
import { idSchema as id } from '../piece/fields';

/** The longest that a piece can be, in beats. */
const MAX_BEATS = 100_000;

export const EXPORT_FORMATS = ['wav16', 'wav24', 'wav32f', 'flac16', 'flac24'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** No peak of what is brought to a loudness goes above this, in dBTP. */
export const NORMAL_CEILING_DB = -1;

/** What shall be written to files. */
export const exportOrderSchema = z.strictObject({
  piece: id,
  /** All of it as one file; a file for each track with what it sends; or prints as they are. */
  what: z.enum(['mix', 'stems', 'prints']),
  fromBeat: z.number().min(0).max(MAX_BEATS),
  toBeat: z.number().positive().max(MAX_BEATS),
  /** Let ring until silent, or cut at the end. */
  tail: z.enum(['silent', 'none']),
  format: z.enum(EXPORT_FORMATS),
  /** Brought to this loudness over its whole length, in LUFS; as it is when null. */
  lufs: z.number().min(-40).max(-6).nullable(),
  /** Ids of prints, for `prints`. */
  prints: z.array(id).max(500),
});
export type ExportOrder = z.infer<typeof exportOrderSchema>;

export const exportFileSchema = z.strictObject({ name: z.string(), bytes: z.number() });

export const EXPORT_STATES = ['waiting', 'running', 'done', 'failed', 'stopped'] as const;

/** An export as the server tells of it. */
export const exportStatusSchema = z.object({
  id,
  piece: id,
  madeAt: z.string(),
  state: z.enum(EXPORT_STATES),
  /** Of all its files, 0 to 1. */
  share: z.number(),
  /** Files of other exports that are written before its first, while it waits. */
  ahead: z.number(),
  message: z.string(),
  files: z.array(exportFileSchema),
  order: exportOrderSchema,
});
export type ExportStatus = z.infer<typeof exportStatusSchema>;
