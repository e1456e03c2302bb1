import * as z from 'zod';
import { boundedList } from '../piece/boundedList';
import { historyEntrySchema } from '../piece/edit';
import { idSchema } from '../piece/fields';
import { pieceSchema } from '../piece/piece';
import { soundSchema } from '../piece/soundInfo';

/** Far beyond what anybody does to a piece, and a figure that every part of the program counts with exactly. */
const MAX_HISTORY = 10_000_000;
/** Of one save. */
const MAX_ENTRIES = 250_000;

const entriesSchema = boundedList(historyEntrySchema, MAX_ENTRIES);
const positionSchema = z.number().int().min(0).max(MAX_HISTORY);

export const historySchema = z.strictObject({ entries: entriesSchema, cursor: positionSchema });
export type History = z.infer<typeof historySchema>;

/** A save: the piece, and the history from entry `from` on, which replaces what was there. */
export const saveSchema = z.strictObject({
  saveId: z.string().min(1).max(64),
  /** Names the window that saves, so that its saves after a conflict go into one kept copy. */
  window: z.string().min(1).max(64).optional(),
  piece: pieceSchema,
  history: z.strictObject({ from: positionSchema, entries: entriesSchema, cursor: positionSchema }),
});
export type Save = z.infer<typeof saveSchema>;

export const pieceListingSchema = z.object({
  id: idSchema,
  name: z.string(),
  revision: z.number(),
  updatedAt: z.string(),
  /** The piece that this one is a kept copy of, after a conflict. */
  copyOf: z.string().nullable(),
});
export type PieceListing = z.infer<typeof pieceListingSchema>;

export const binnedPieceSchema = pieceListingSchema.extend({ removedAt: z.string() });
export type BinnedPiece = z.infer<typeof binnedPieceSchema>;

/** A piece as the server has it. */
export const storedPieceSchema = z.object({
  /** Of any version; `readPiece` brings it to this one. */
  piece: z.unknown(),
  revision: z.number(),
  /** The save that made this revision, for a window that never heard whether its save arrived. */
  lastSave: z.string(),
  history: z.object({ entries: z.array(historyEntrySchema), cursor: z.number() }),
});

export const storedSoundSchema = soundSchema.extend({ hash: z.string() });
export type StoredSound = z.infer<typeof storedSoundSchema>;

export const soundAmountSchema = z.object({ count: z.number(), bytes: z.number() });
export type SoundAmount = z.infer<typeof soundAmountSchema>;

export const storageSchema = z.object({
  sounds: soundAmountSchema,
  /** Of those, what can be removed. */
  unused: soundAmountSchema,
  /** Free on the disk, in bytes. */
  freeBytes: z.number(),
});
export type StorageUse = z.infer<typeof storageSchema>;

export const uploadStatusSchema = z.object({
  state: z.enum(['receiving', 'waiting', 'working']),
  /** Bytes that have come. */
  received: z.number(),
  /** Other files that are worked on before it, while it waits. */
  ahead: z.number(),
});
export type UploadStatus = z.infer<typeof uploadStatusSchema>;

/** An answer to what went wrong: what happened, what was kept, what to do. Source: RFC 9457. */
export const problemSchema = z.object({
  title: z.string(),
  detail: z.string(),
  status: z.number(),
  /** The piece that a save was kept as, after a conflict. */
  keptAs: z.string().optional(),
  /** When the last state of a piece that can be read was saved; null when there is none. */
  lastGood: z.string().nullish(),
});
