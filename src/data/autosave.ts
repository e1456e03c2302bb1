import * as z from 'zod';
import { historyEntrySchema } from '../core/piece/edit';
import { ApiProblem, savePiece, type SaveRequest } from './api';
import { newId } from './newId';
import { useOpenPiece } from './openPiece';
import { UnsavedStore, type UnsavedBase, type UnsavedSending } from './unsavedStore';
import { changeBetween, isInCopy, migrateSave, sendWork } from './unsavedWork';

/** Maximum delay before an edit is sent to the server. */
const QUIET_MS = 350;
const RETRY_MS = 1500;
const LOCK = 'zephiro.window.';

interface Sent {
  readonly revision: number;
  readonly change: number;
  readonly save: SaveRequest;
  /** The last change that it holds. */
  readonly upTo: number;
}

const sendingOf = ({ save, upTo }: Sent, window: string): UnsavedSending => ({
  pieceId: save.piece.id,
  window,
  saveId: save.saveId,
  upTo,
});

/**
 * Saves the open piece by itself, and keeps what the server does not have yet in this browser: for each piece and
 * window, from the turn in which an edit is made until the server has it.
 */
export class Autosave {
  /** Identifies this page. */
  readonly window = newId();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private busy = false;
  private unanswered: Sent | null = null;
  private seq = 0;
  /** Resolves when all pending writes to the browser's database are done. */
  private kept: Promise<boolean> = Promise.resolve(true);
  private readonly endings: (() => void)[] = [];
  private readonly ended = new AbortController();

  private constructor(private readonly unsaved: UnsavedStore | null) {}

  /**
   * Begins for this page. Where the browser has no database, work is only in the page, which is said while it matters.
   */
  static async start(): Promise<Autosave> {
    const unsaved = await UnsavedStore.open().catch(() => null);
    const autosave = new Autosave(unsaved);
    autosave.endings.push(holdLock(LOCK + autosave.window));
    autosave.watch();
    return autosave;
  }

  end(): void {
    for (const end of this.endings.splice(0)) end();
    this.ended.abort();
    if (this.timer) clearTimeout(this.timer);
    this.unsaved?.close();
  }

  private watch(): void {
    const stop = useOpenPiece.subscribe((now, before) => {
      if (!now.piece || now.saveState.kind === 'saved') {
        if (now.piece && (now.piece.id !== before.piece?.id || now.opened !== before.opened)) this.begin();
        return;
      }
      if (now.change === before.change) return;
      this.persistPending({
        ...changeBetween(before, now),
        pieceId: now.piece.id,
        window: this.window,
        seq: (this.seq += 1),
      });
      this.schedule(QUIET_MS);
    });
    const ask = (event: BeforeUnloadEvent): void => {
      const { saveState, unkept } = useOpenPiece.getState();
      if (unkept && saveState.kind !== 'saved') event.preventDefault();
    };
    globalThis.addEventListener?.('beforeunload', ask);
    this.endings.push(stop, () => globalThis.removeEventListener?.('beforeunload', ask));
  }

  /** Another piece, or another state of it, was opened. */
  private begin(): void {
    this.unanswered = null;
    void this.write((unsaved) => unsaved.begin(this.base()));
    if (!this.busy) void this.sendLeft();
  }

  /**
   * Sends what this window has not saved yet of pieces that it has turned away from. Stays kept where it cannot be now.
   */
  private async sendLeft(): Promise<void> {
    const { unsaved } = this;
    const works = (await unsaved?.list().catch(() => [])) ?? [];
    for (const work of works) {
      const { window, pieceId } = work.base;
      if (window !== this.window || pieceId === useOpenPiece.getState().piece?.id) continue;
      const told = await sendWork(unsaved!, work).catch(() => null);
      // The banner has told of a copy.
      if (told && !isInCopy(work)) useOpenPiece.getState().say(told);
    }
  }

  /** The open piece as the server has it. */
  private base(): UnsavedBase {
    const { piece, revision, entries, cursor } = useOpenPiece.getState();
    return { pieceId: piece!.id, window: this.window, revision, document: piece, entries: entries.length, cursor };
  }

  private persistPending(change: Parameters<UnsavedStore['addChange']>[0]): void {
    void this.write((unsaved) => unsaved.addChange(change));
  }

  /** Writes to the browser's database, in this turn of the event loop; a failure is recorded and reported. */
  private write(act: (unsaved: UnsavedStore) => Promise<void>): Promise<boolean> {
    const { unsaved } = this;
    const written = unsaved
      ? act(unsaved).then(
          () => true,
          () => false,
        )
      : Promise.resolve(false);
    this.kept = Promise.all([this.kept, written]).then(([before, now]) => before && now);
    void this.kept.then((kept) => {
      if (useOpenPiece.getState().unkept === kept) useOpenPiece.setState({ unkept: !kept });
    });
    return written;
  }

  private schedule(ms: number): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.attempt(), ms);
  }

  private async attempt(): Promise<void> {
    this.timer = null;
    const now = useOpenPiece.getState();
    if (this.busy || !now.piece || now.saveState.kind === 'saved') return;
    this.busy = true;
    if (!this.unanswered) now.saveBegins();
    const sent = this.unanswered ?? {
      revision: now.revision,
      change: now.change,
      save: this.request(),
      upTo: this.seq,
    };
    try {
      await this.write((unsaved) => unsaved.setSending(sendingOf(sent, this.window)));
      await this.answered(sent, await savePiece(sent.revision, sent.save));
    } catch (error) {
      await this.refused(sent, error instanceof ApiProblem ? error : new ApiProblem(0, 'Not saved', String(error)));
    } finally {
      this.busy = false;
    }
  }

  private request(): SaveRequest {
    const { piece, entries, savedEntries, cursor } = useOpenPiece.getState();
    const history = { from: savedEntries, entries: entries.slice(savedEntries), cursor };
    return { saveId: newId(), window: this.window, piece: piece!, history };
  }

  private async answered({ save, upTo, change }: Sent, revision: number): Promise<void> {
    this.unanswered = null;
    const { piece, history } = save;
    const entries = history.from + history.entries.length;
    const base = { pieceId: piece.id, window: this.window, revision, document: piece, entries, cursor: history.cursor };
    const based = await this.write((unsaved) => unsaved.advance(base, upTo));
    if (useOpenPiece.getState().piece?.id !== piece.id) {
      await this.sendLeft();
      return;
    }
    useOpenPiece.getState().savedAs(revision, entries, change);
    if (useOpenPiece.getState().saveState.kind === 'saved') this.kept = Promise.resolve(based);
    else this.schedule(0);
  }

  private async refused(sent: Sent, problem: ApiProblem): Promise<void> {
    this.unanswered = problem.status === 0 ? sent : null;
    if (problem.status === 0 || problem.status >= 500) this.schedule(RETRY_MS);
    // The copy must not be written again by this save: whoever opens it goes on from there.
    if (problem.status === 409)
      await this.write((unsaved) => unsaved.setSending({ ...sendingOf(sent, this.window), inCopy: problem.detail }));
    // Reported only once it is stored.
    const kept = await this.kept;
    const { saving, say, piece, change } = useOpenPiece.getState();
    if (piece?.id !== sent.save.piece.id) {
      if (problem.status !== 409) return;
      say(problem.detail);
      await this.sendLeft();
      return;
    }
    if (problem.status === 0)
      saving({ kind: 'away', message: kept ? problem.message : `${problem.title}. ${ONLY_HERE}` });
    else if (problem.status === 409) {
      saving({ kind: 'conflict', message: problem.message, keptAs: problem.keptAs });
      if (change !== sent.change) this.schedule(QUIET_MS);
    } else saving({ kind: 'refused', message: kept ? problem.message : `${problem.message} ${ONLY_HERE}` });
  }

  /**
   * Sends the unsaved work of windows that were closed. Call before a piece is opened.
   * @throws ApiProblem when the server cannot take it now; it stays stored then
   */
  async sendEarlierWork(): Promise<void> {
    await sendLegacyWork();
    const { unsaved } = this;
    if (!unsaved) return;
    for (const { base } of await unsaved.list()) {
      if (base.window === this.window) continue;
      await whenGone(LOCK + base.window, this.ended.signal, (late) => this.sendOf(unsaved, base, late));
    }
  }

  /**
   * Sends the unsaved work of a window that was closed. If its piece has been opened here meanwhile, it is opened again
   * with that work in it; if it has unsaved changes here, the work stays stored until the next opening.
   */
  private async sendOf(unsaved: UnsavedStore, { window, pieceId }: UnsavedBase, late: boolean): Promise<void> {
    const { piece, saveState, say, open } = useOpenPiece.getState();
    const inView = late && piece?.id === pieceId;
    if (inView && saveState.kind !== 'saved') return;
    // Read again: the window may have saved more since it was listed.
    const work = (await unsaved.list()).find(({ base }) => base.window === window && base.pieceId === pieceId);
    if (!work) return;
    const told = await sendWork(unsaved, work);
    if (inView && work.changes.length > 0) await open(pieceId);
    if (told) say(told);
  }
}

const ONLY_HERE =
  'This browser cannot keep your work: it is in this window alone until it is saved. Leave the window open.';

/** Holds a lock for as long as this page exists, so that other windows can detect it. @returns releases it */
function holdLock(name: string): () => void {
  const { locks } = globalThis.navigator ?? {};
  if (!locks) return () => undefined;
  let release: () => void = () => undefined;
  void locks.request(name, () => new Promise<void>((resolve) => (release = resolve)));
  return () => release();
}

/** A page that was killed keeps its lock for a moment: opening a piece waits so long for it. */
const LOCK_WAIT_MS = 3000;

/**
 * Calls `act` once no page holds the lock `name`; at once where the browser has no locks. Resolves after `act`, or
 * after `LOCK_WAIT_MS` while the lock is still held: `act` is then called whenever the lock becomes free.
 *
 * @param signal ends the wait for the lock
 * @param act told whether it is called after this function has resolved; an error of such a late call is ignored
 * @throws what `act` throws before that
 */
async function whenGone(name: string, signal: AbortSignal, act: (late: boolean) => Promise<void>): Promise<void> {
  const { locks } = globalThis.navigator ?? {};
  if (!locks) {
    await act(false);
    return;
  }
  let late = false;
  const acted = locks
    .request(name, { signal }, () => act(late))
    .catch((error: unknown) => {
      if (!late && !signal.aborted) throw error;
    });
  await Promise.race([
    acted,
    new Promise<void>((resolve) =>
      setTimeout(() => {
        late = true;
        resolve();
      }, LOCK_WAIT_MS),
    ),
  ]);
}

const LEGACY = 'zephiro.unsaved';
const legacySchema = z.object({
  revision: z.number(),
  save: z.object({
    saveId: z.string(),
    /** Of any version: it was written by an earlier program. */
    piece: z.unknown(),
    history: z.object({ from: z.number(), entries: z.array(historyEntrySchema), cursor: z.number() }),
  }),
});

/** Sends what an earlier program kept under one key for all windows; what no server takes stays under another. */
async function sendLegacyWork(): Promise<void> {
  const text = localStorage.getItem(LEGACY);
  if (!text) return;
  const { say } = useOpenPiece.getState();
  try {
    const { revision, save } = legacySchema.parse(JSON.parse(text));
    await savePiece(revision, { ...save, ...migrateSave(save.piece, save.history) });
  } catch (error) {
    if (error instanceof ApiProblem && (error.status === 0 || error.status >= 500)) throw error;
    if (!(error instanceof ApiProblem && error.status === 409)) localStorage.setItem(`${LEGACY}.refused`, text);
    say(
      `Work of an earlier window: ${error instanceof ApiProblem ? error.detail : 'it could not be read, and was put aside.'}`,
    );
  }
  localStorage.removeItem(LEGACY);
}
