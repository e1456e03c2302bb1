import { applyPatches, enablePatches, produceWithPatches, type Draft } from 'immer';
import * as z from 'zod';
import type { Piece } from './piece';

enablePatches();

/** An edit of a piece: a pure function with a name and arguments that can be stored. */
export interface Edit<Args> {
  readonly name: string;
  readonly args: z.ZodType<Args>;
  /** How the history lists it. */
  label(args: Args, before: Piece): string;
  /** Changes the draft; throws EditRefused with a plain reason when it cannot. */
  apply(draft: Draft<Piece>, args: Args): void;
}

/** The arguments that an edit takes. */
export type Args<E> = E extends Edit<infer A> ? A : never;

export const defineEdit = <Args>(edit: Edit<Args>): Edit<Args> => edit;

export class EditRefused extends Error {}

export const patchSchema = z.strictObject({
  op: z.enum(['replace', 'remove', 'add']),
  path: z.array(z.union([z.string(), z.number()])),
  value: z.unknown().optional(),
});
export type Patch = z.infer<typeof patchSchema>;

/**
 * Name of the edit that replaces a stored one that could not be read: it does nothing, and the history is not undone
 * beyond it.
 */
export const UNREADABLE_EDIT = 'unreadable';

export const historyEntrySchema = z.strictObject({
  id: z.string().min(1).max(64),
  at: z.string(),
  edit: z.string(),
  label: z.string().max(300),
  forward: z.array(patchSchema),
  backward: z.array(patchSchema),
});
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

export interface Edited {
  readonly piece: Piece;
  readonly label: string;
  readonly forward: Patch[];
  readonly backward: Patch[];
}

/** Applies an edit: a new piece, and the patches that lead there and back. The given piece is not changed. */
export function applyEdit<Args>(piece: Piece, edit: Edit<Args>, args: Args): Edited {
  const label = edit.label(args, piece);
  const [next, forward, backward] = produceWithPatches(piece, (draft) => edit.apply(draft, args));
  return { piece: next, label, forward, backward };
}

export const applyPiecePatches = (piece: Piece, patches: readonly Patch[]): Piece => applyPatches(piece, [...patches]);
