import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import * as z from 'zod';
import { historyEntrySchema, patchSchema } from '../core/piece/edit';

/** The piece as the server has it, on which the changes of one window were made. */
const baseSchema = z.object({
  pieceId: z.string(),
  window: z.string(),
  revision: z.number(),
  /** Any version of a piece: it may have been written by an earlier program. */
  document: z.unknown(),
  /** History entries on the server, and how many of them are in force. */
  entries: z.number(),
  cursor: z.number(),
});
export type UnsavedBase = z.infer<typeof baseSchema>;

/** One change of piece, entries or cursor, in the order of `seq`. */
const changeSchema = z.object({
  pieceId: z.string(),
  window: z.string(),
  seq: z.number(),
  /** Patches from the piece before it to the piece after it. */
  patches: z.array(patchSchema),
  /** A new entry of the history, which goes where the cursor was; null for undo and redo. */
  entry: historyEntrySchema.nullable(),
  cursor: z.number(),
});
export type UnsavedChange = z.infer<typeof changeSchema>;

/**
 * The last save that was sent. Its answer has not come, so that it may have reached the server or not; or it was a
 * conflict, and the server has it in a copy.
 */
const sendingSchema = z.object({
  pieceId: z.string(),
  window: z.string(),
  saveId: z.string(),
  upTo: z.number(),
  /** The server's answer about the copy; absent before it. */
  inCopy: z.string().optional(),
});
export type UnsavedSending = z.infer<typeof sendingSchema>;

/** All stored work of one window on one piece. */
export interface UnsavedWork {
  readonly base: UnsavedBase;
  readonly changes: readonly UnsavedChange[];
  readonly sending: UnsavedSending | null;
}

type Key = [pieceId: string, window: string];

interface Schema extends DBSchema {
  bases: { key: Key; value: UnsavedBase };
  changes: { key: [pieceId: string, window: string, seq: number]; value: UnsavedChange };
  sendings: { key: Key; value: UnsavedSending };
  /** Work that no server accepts, kept for inspection. */
  aside: { key: number; value: { readonly at: string; readonly reason: string; readonly work: unknown } };
}

const NAME = 'zephiro';

/** After a change is committed, it is on the disk. */
const ON_DISK = { durability: 'strict' } as const;

const changesOf = ([pieceId, window]: Key, upTo = Infinity): IDBKeyRange =>
  IDBKeyRange.bound([pieceId, window, -Infinity], [pieceId, window, upTo]);

/**
 * Work that the server does not have yet, in the browser's database: for each piece and window the state that the
 * server has, and every change since. A change is a small record that is committed in the turn in which it is made, so
 * that it outlives a page that ends right after.
 */
export class UnsavedStore {
  private constructor(private readonly db: IDBPDatabase<Schema>) {}

  /** @throws where the browser has no such database, or keeps it shut */
  static async open(): Promise<UnsavedStore> {
    const db = await openDB<Schema>(NAME, 1, {
      upgrade: (made) => {
        made.createObjectStore('bases', { keyPath: ['pieceId', 'window'] });
        made.createObjectStore('changes', { keyPath: ['pieceId', 'window', 'seq'] });
        made.createObjectStore('sendings', { keyPath: ['pieceId', 'window'] });
        made.createObjectStore('aside', { autoIncrement: true });
      },
    });
    return new UnsavedStore(db);
  }

  /**
   * Resets to a state of the server: what was written for this piece and window before is removed. Does not wait for
   * the disk, as the server has all of it, and the first change, which must outlive the page, waits for this.
   */
  async begin(base: UnsavedBase): Promise<void> {
    await this.replace(base, Infinity, {});
  }

  async addChange(change: UnsavedChange): Promise<void> {
    const tx = this.db.transaction('changes', 'readwrite', ON_DISK);
    void tx.store.put(change);
    // Committed explicitly: the browser would wait for the next turn of the event loop, and the page may be closed by
    // then.
    tx.commit();
    await tx.done;
  }

  async setSending(sending: UnsavedSending): Promise<void> {
    await this.db.put('sendings', sending);
  }

  /** The server has all changes up to `upTo`, which gave the state of `base`. */
  async advance(base: UnsavedBase, upTo: number): Promise<void> {
    await this.replace(base, upTo, ON_DISK);
  }

  private async replace(base: UnsavedBase, upTo: number, options: IDBTransactionOptions): Promise<void> {
    const key: Key = [base.pieceId, base.window];
    const tx = this.db.transaction(['bases', 'changes', 'sendings'], 'readwrite', options);
    await Promise.all([
      tx.objectStore('bases').put(base),
      tx.objectStore('changes').delete(changesOf(key, upTo)),
      tx.objectStore('sendings').delete(key),
      tx.done,
    ]);
  }

  async forget(pieceId: string, window: string): Promise<void> {
    const tx = this.db.transaction(['bases', 'changes', 'sendings'], 'readwrite', ON_DISK);
    await Promise.all([
      tx.objectStore('bases').delete([pieceId, window]),
      tx.objectStore('changes').delete(changesOf([pieceId, window])),
      tx.objectStore('sendings').delete([pieceId, window]),
      tx.done,
    ]);
  }

  /** Puts work aside, so that it is not tried again and not lost. */
  async putAside(reason: string, work: UnsavedWork): Promise<void> {
    await this.db.add('aside', { at: new Date().toISOString(), reason, work });
    await this.forget(work.base.pieceId, work.base.window);
  }

  /** The stored work of windows, without those that have no changes. Unreadable records are skipped. */
  async list(): Promise<UnsavedWork[]> {
    const works: UnsavedWork[] = [];
    for (const stored of await this.db.getAll('bases')) {
      const base = baseSchema.safeParse(stored).data;
      if (!base) continue;
      const key: Key = [base.pieceId, base.window];
      const changes = z.array(changeSchema).safeParse(await this.db.getAll('changes', changesOf(key)));
      const sending = sendingSchema.safeParse(await this.db.get('sendings', key)).data ?? null;
      works.push({ base, changes: changes.data ?? [], sending });
    }
    return works;
  }

  close(): void {
    this.db.close();
  }
}
