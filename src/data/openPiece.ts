import { create } from 'zustand';
import {
  applyEdit,
  applyPiecePatches,
  EditRefused,
  UNREADABLE_EDIT,
  type Edit,
  type HistoryEntry,
} from '../core/piece/edit';
import type { Piece } from '../core/piece/piece';
import { StandsOnIt, takeOut } from '../core/piece/takeOut';
import { fetchPiece } from './api';
import { newId } from './newId';

/** State of the piece relative to the server's copy. */
export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'away'; readonly message: string }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'conflict'; readonly message: string; readonly keptAs: string | null };

/** The action of a notice. */
export interface NoticeAction {
  readonly label: string;
  /** As it is spoken, where the label alone does not say enough. */
  readonly spoken?: string;
  act(): void;
}

interface OpenPiece {
  piece: Piece | null;
  revision: number;
  entries: readonly HistoryEntry[];
  /** How many entries are in force; those after it can be redone. */
  cursor: number;
  /** Entries from this place on have not reached the server. */
  savedEntries: number;
  /** The lowest index at which the history was truncated since the last save was prepared. */
  cutSince: number;
  /** Counts every change of piece, entries or cursor; a save is current while this has not moved on. */
  change: number;
  saveState: SaveState;
  notice: string | null;
  noticeAction: NoticeAction | null;
  /** Unsaved work could not be stored in this browser either. */
  unkept: boolean;
  /** Counts how often a piece was opened. */
  opened: number;
  open(id: string): Promise<void>;
  /** Applies an edit; a refusal becomes a notice and changes nothing. */
  run<Args>(edit: Edit<Args>, args: Args): boolean;
  /** Undoes or redoes until `cursor` entries are in force. */
  goTo(cursor: number): void;
  /**
   * Takes one edit out of the middle, as an edit of its own; where later ones depend on it that becomes a notice.
   * @param index of the entry
   */
  takeOut(index: number): boolean;
  undo(): void;
  redo(): void;
  say(notice: string | null, action?: NoticeAction): void;
  saving(state: SaveState): void;
  /** Waits until the server has everything. @throws Error saying why it cannot have it now */
  saved(): Promise<void>;
  /** A save is being prepared. */
  saveBegins(): void;
  savedAs(revision: number, upTo: number, change: number): void;
}

export const useOpenPiece = create<OpenPiece>((set, get) => ({
  piece: null,
  revision: 0,
  entries: [],
  cursor: 0,
  savedEntries: 0,
  cutSince: Infinity,
  change: 0,
  saveState: { kind: 'saved' },
  notice: null,
  noticeAction: null,
  unkept: false,
  opened: 0,

  open: async (id) => {
    const { piece, revision, entries, cursor } = await fetchPiece(id);
    set({
      piece,
      revision,
      entries,
      cursor,
      savedEntries: entries.length,
      cutSince: Infinity,
      change: 0,
      saveState: { kind: 'saved' },
      unkept: false,
      opened: get().opened + 1,
    });
  },

  run: (edit, args) => {
    const { piece, entries, cursor, savedEntries, cutSince, change, saveState } = get();
    if (!piece) return false;
    try {
      const edited = applyEdit(piece, edit, args);
      if (edited.forward.length === 0) return true;
      const entry: HistoryEntry = {
        id: newId(),
        at: new Date().toISOString(),
        edit: edit.name,
        label: edited.label.slice(0, 300),
        forward: edited.forward,
        backward: edited.backward,
      };
      set({
        piece: edited.piece,
        entries: [...entries.slice(0, cursor), entry],
        cursor: cursor + 1,
        savedEntries: Math.min(savedEntries, cursor),
        cutSince: Math.min(cutSince, cursor),
        change: change + 1,
        saveState: pendingAfter(saveState),
      });
      return true;
    } catch (error) {
      if (!(error instanceof EditRefused)) throw error;
      set(saying(error.message));
      return false;
    }
  },

  goTo: (goal) => {
    const { entries, cursor, change, saveState } = get();
    let { piece } = get();
    if (!piece) return;
    const end = reachable(entries, cursor, Math.max(0, Math.min(entries.length, goal)));
    if (end !== goal && entries[end < cursor ? end - 1 : end]?.edit === UNREADABLE_EDIT)
      set(saying('The history cannot be gone through beyond an edit that cannot be read any more.'));
    if (end === cursor) return;
    for (let at = cursor; at > end; at -= 1) piece = applyPiecePatches(piece, entries[at - 1]!.backward);
    for (let at = cursor; at < end; at += 1) piece = applyPiecePatches(piece, entries[at]!.forward);
    set({ piece, cursor: end, change: change + 1, saveState: pendingAfter(saveState) });
  },

  takeOut: (index) => {
    const { piece, entries, cursor, savedEntries, cutSince, change, saveState } = get();
    if (!piece || index >= cursor) return false;
    if (reachable(entries, cursor, index) !== index) {
      set(saying('It cannot be taken out: after it comes an edit that cannot be read any more.'));
      return false;
    }
    try {
      const { piece: next, label, forward, backward } = takeOut(piece, entries, cursor, index);
      const entry: HistoryEntry = {
        id: newId(),
        at: new Date().toISOString(),
        edit: 'takeOut',
        label,
        forward,
        backward,
      };
      set({
        piece: next,
        entries: [...entries.slice(0, cursor), entry],
        cursor: cursor + 1,
        savedEntries: Math.min(savedEntries, cursor),
        cutSince: Math.min(cutSince, cursor),
        change: change + 1,
        saveState: pendingAfter(saveState),
        ...saying(label),
      });
      return true;
    } catch (error) {
      if (!(error instanceof StandsOnIt)) throw error;
      set(saying(error.message));
      return false;
    }
  },

  undo: () => {
    const { cursor, entries, goTo } = get();
    const label = entries[cursor - 1]?.label;
    goTo(cursor - 1);
    if (label) set(saying(`Undone: ${label}`));
  },

  redo: () => {
    const { cursor, entries, goTo } = get();
    const label = entries[cursor]?.label;
    goTo(cursor + 1);
    if (label) set(saying(`Redone: ${label}`));
  },

  say: (notice, action) => set(saying(notice, action)),
  saving: (saveState) => set({ saveState }),
  saved: () =>
    new Promise((resolve, reject) => {
      const look = ({ saveState }: OpenPiece): boolean => {
        if (saveState.kind === 'waiting') return false;
        if (saveState.kind === 'saved') resolve();
        else reject(new Error(`${saveState.message} Files can be written once the server has the piece.`));
        return true;
      };
      if (look(get())) return;
      const stop = useOpenPiece.subscribe((now) => {
        if (look(now)) stop();
      });
    }),
  saveBegins: () => set({ cutSince: Infinity }),
  savedAs: (revision, upTo, change) =>
    set((now) => ({
      revision,
      savedEntries: Math.min(upTo, now.cutSince),
      saveState: now.change === change ? { kind: 'saved' } : { kind: 'waiting' },
    })),
}));

const saying = (
  notice: string | null,
  noticeAction: NoticeAction | null = null,
): Pick<OpenPiece, 'notice' | 'noticeAction'> => ({ notice, noticeAction });

/** After a change: to be saved, or, after a conflict, to be added to the copy that is kept of it. */
const pendingAfter = (state: SaveState): SaveState => (state.kind === 'conflict' ? state : { kind: 'waiting' });

/** The nearest reachable cursor: undoing past an edit that cannot be read would change what it did not. */
function reachable(entries: readonly HistoryEntry[], cursor: number, goal: number): number {
  let at = cursor;
  while (at > goal && entries[at - 1]!.edit !== UNREADABLE_EDIT) at -= 1;
  while (at < goal && entries[at]!.edit !== UNREADABLE_EDIT) at += 1;
  return at;
}
