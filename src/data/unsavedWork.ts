import { applyPatches } from 'immer';
import { applyPiecePatches, type HistoryEntry, type Patch } from '../core/piece/edit';
import type { Piece } from '../core/piece/piece';
import { hasOldHistory, migrateHistory, migratePatches } from '../core/piece/versions/migrateHistory';
import { readPiece } from '../core/piece/versions/readPiece';
import type { Stored } from '../core/piece/versions/changedLists';
import { ApiProblem, createPiece, fetchPiece, savePiece, type SaveRequest } from './api';
import { newId } from './newId';
import type { UnsavedChange, UnsavedSending, UnsavedStore, UnsavedWork } from './unsavedStore';
import { reasonOf } from '../core/reasonOf';

/** Piece, entries and cursor at one moment. */
export interface HistoryState {
  readonly piece: Piece | null;
  readonly entries: readonly HistoryEntry[];
  readonly cursor: number;
}

/** A transition from one state of the open piece to the next: an edit, or undo and redo. */
export function changeBetween(
  before: HistoryState,
  now: HistoryState,
): Pick<UnsavedChange, 'patches' | 'entry' | 'cursor'> {
  const { cursor, entries } = now;
  if (entries !== before.entries) {
    const entry = entries[cursor - 1]!;
    return { patches: entry.forward, entry, cursor };
  }
  const patches: Patch[] = [];
  for (let at = before.cursor; at > cursor; at -= 1) patches.push(...entries[at - 1]!.backward);
  for (let at = before.cursor; at < cursor; at += 1) patches.push(...entries[at]!.forward);
  return { patches, entry: null, cursor };
}

/** Combined work: the piece with all changes, and the history entries that the server lacks. */
interface Replayed {
  readonly piece: Piece;
  readonly history: SaveRequest['history'];
}

/** @throws UnreadablePiece when the piece that it was based on cannot be read */
export function replay({ base, changes }: Pick<UnsavedWork, 'base' | 'changes'>): Replayed {
  let piece = readPiece(base.document);
  let { entries: from, cursor } = base;
  let entries: HistoryEntry[] = [];
  for (const change of hasOldHistory(base.document) ? migrateChanges(base.document as Stored, changes) : changes) {
    piece = applyPiecePatches(piece, change.patches);
    if (change.entry) {
      const at = change.cursor - 1;
      entries = at <= from ? [change.entry] : [...entries.slice(0, at - from), change.entry];
      from = Math.min(from, at);
    }
    cursor = change.cursor;
  }
  return { piece, history: { from, entries, cursor } };
}

/** What an earlier program was about to save, as it is saved now. @throws UnreadablePiece when it cannot be */
export function migrateSave(document: unknown, history: SaveRequest['history']): Replayed {
  const piece = readPiece(document);
  if (!hasOldHistory(document)) return { piece, history };
  const { from, entries, cursor } = history;
  return {
    piece,
    history: { ...history, entries: migrateHistory(document as Stored, entries, Math.max(0, cursor - from)) },
  };
}

/** Changes that an earlier program made to a document of an older version, as they are made to one of this version. */
function migrateChanges(document: Stored, changes: readonly UnsavedChange[]): UnsavedChange[] {
  let before = document;
  return changes.map((change) => {
    const after: Stored = applyPatches(before, [...change.patches]);
    const patches = migratePatches(before, change.patches);
    const entry = change.entry && {
      ...change.entry,
      forward: patches,
      backward: migratePatches(after, change.entry.backward),
    };
    before = after;
    return { ...change, patches, entry };
  });
}

/** The work that is left once a save under way has arrived. */
function afterSending(work: UnsavedWork, sending: UnsavedSending, revision: number): UnsavedWork {
  const { piece, history } = replay({
    base: work.base,
    changes: work.changes.filter(({ seq }) => seq <= sending.upTo),
  });
  const base = {
    ...work.base,
    revision,
    document: piece,
    entries: history.from + history.entries.length,
    cursor: history.cursor,
  };
  return { base, changes: work.changes.filter(({ seq }) => seq > sending.upTo), sending: null };
}

/** Whether the server has all of it in the copy that it kept after a conflict. */
export const isInCopy = ({ changes, sending }: UnsavedWork): boolean =>
  sending?.inCopy !== undefined && changes.every(({ seq }) => seq <= sending.upTo);

/**
 * Sends the unsaved work of a window that was closed.
 * @returns the outcome, to be reported; null when the server has it as intended
 * @throws ApiProblem when the server cannot take it now; it is still kept then
 */
export async function sendWork(store: UnsavedStore, work: UnsavedWork): Promise<string | null> {
  const { pieceId, window } = work.base;
  if (work.changes.length === 0) {
    await store.forget(pieceId, window);
    return null;
  }
  if (isInCopy(work)) {
    await store.forget(pieceId, window);
    return `Work of an earlier window: ${work.sending!.inCopy}`;
  }
  try {
    const told = await attempt(work);
    await store.forget(pieceId, window);
    return told;
  } catch (error) {
    if (error instanceof ApiProblem && (error.status === 0 || error.status >= 500)) throw error;
    const reason = error instanceof ApiProblem ? error.detail : reasonOf(error);
    await store.putAside(reason, work);
    return `Work of an earlier window was put aside in this browser: ${reason}`;
  }
}

async function attempt(given: UnsavedWork): Promise<string | null> {
  let work = given;
  if (given.sending) {
    const stored = await fetchPiece(given.base.pieceId).catch((error: unknown) => {
      if (error instanceof ApiProblem && (error.status === 404 || error.status === 422)) return null;
      throw error;
    });
    if (stored?.lastSave === given.sending.saveId) work = afterSending(given, given.sending, stored.revision);
    if (work.changes.length === 0) return null;
  }
  const { piece, history } = replay(work);
  try {
    await savePiece(work.base.revision, { saveId: newId(), window: work.base.window, piece, history });
    return null;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    if (error.status === 409) return `Work of an earlier window: ${error.detail}`;
    if (error.status !== 404) throw error;
    const copy = { ...piece, id: newId(), name: `${piece.name.slice(0, 100)} (kept copy)` };
    await createPiece(copy);
    return `Work of an earlier window on a piece that was removed is kept as “${copy.name}”.`;
  }
}
