import * as z from 'zod';
import { historyEntrySchema } from '../core/piece/edit';
import { pieceSchema } from '../core/piece/piece';
import { ApiProblem, savePiece, type SaveRequest } from './api';
import { useOpenPiece } from './openPiece';

/** An edit is on its way to the server within this time. */
const QUIET_MS = 350;
const RETRY_MS = 1500;
const KEPT = 'zephiro.unsaved';
const keptSchema = z.object({
  revision: z.number(),
  save: z.object({
    saveId: z.string(),
    piece: pieceSchema,
    history: z.object({ from: z.number(), entries: z.array(historyEntrySchema), cursor: z.number() }),
  }),
});

/** Saves by itself. Call once; gives back how to end it. */
export function startAutosave(): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let busy = false;
  let unanswered: { revision: number; change: number; save: SaveRequest } | null = null;

  const schedule = (ms: number): void => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void attempt(), ms);
  };

  const attempt = async (): Promise<void> => {
    timer = null;
    if (busy) return;
    const now = useOpenPiece.getState();
    if (!now.piece || now.saveState.kind === 'saved' || now.saveState.kind === 'conflict') return;
    busy = true;
    if (!unanswered) now.saveBegins();
    const sent = unanswered ?? { revision: now.revision, change: now.change, save: requestOf() };
    try {
      const revision = await savePiece(sent.revision, sent.save);
      unanswered = null;
      const { history } = sent.save;
      useOpenPiece.getState().savedAs(revision, history.from + history.entries.length, sent.change);
      if (useOpenPiece.getState().saveState.kind === 'saved') localStorage.removeItem(KEPT);
      else schedule(0);
    } catch (error) {
      const problem = error instanceof ApiProblem ? error : new ApiProblem(0, 'Not saved', String(error));
      unanswered = problem.status === 0 ? sent : null;
      settle(problem);
      if (problem.status === 0 || problem.status >= 500) schedule(RETRY_MS);
    } finally {
      busy = false;
    }
  };

  const stopWatching = useOpenPiece.subscribe((now, before) => {
    if (now.change !== before.change && now.saveState.kind === 'waiting') {
      keep();
      schedule(QUIET_MS);
    }
  });
  return () => {
    stopWatching();
    if (timer) clearTimeout(timer);
  };
}

function requestOf(): SaveRequest {
  const { piece, entries, savedEntries, cursor } = useOpenPiece.getState();
  return { saveId: crypto.randomUUID(), piece: piece!, history: { from: savedEntries, entries: entries.slice(savedEntries), cursor } };
}

function settle(problem: ApiProblem): void {
  const { saving } = useOpenPiece.getState();
  if (problem.status === 0) saving({ kind: 'away', message: problem.message });
  else if (problem.status === 409) saving({ kind: 'conflict', message: problem.message, keptAs: problem.keptAs });
  else saving({ kind: 'refused', message: problem.message });
}

/** Until the server has it, the change also lies in this browser, in case the window is closed. */
function keep(): void {
  const { revision } = useOpenPiece.getState();
  try {
    localStorage.setItem(KEPT, JSON.stringify({ revision, save: requestOf() }));
  } catch {
    // A full store only means that a closed window may lose the last unsaved edits; saving itself goes on.
  }
}

/**
 * Sends what an earlier window could not save. Call before a piece is opened.
 * @throws ApiProblem when the server cannot take it now; it then stays kept, and opening waits rather than let a new edit take its place
 */
export async function sendKept(): Promise<void> {
  const text = localStorage.getItem(KEPT);
  if (!text) return;
  const kept = readKept(text);
  if (!kept) {
    putAside(text);
    return;
  }
  try {
    await savePiece(kept.revision, kept.save);
    localStorage.removeItem(KEPT);
  } catch (error) {
    const problem = error instanceof ApiProblem ? error : null;
    if (problem?.status === 0 || (problem && problem.status >= 500)) throw problem;
    if (problem?.status === 409) localStorage.removeItem(KEPT);
    else putAside(text);
    useOpenPiece.getState().say(`Work of an earlier window: ${problem?.detail ?? 'it could not be stored'}`);
  }
}

function readKept(text: string): z.infer<typeof keptSchema> | null {
  try {
    return keptSchema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** What no server takes stays in the browser under a name of its own, for a person to look at. */
function putAside(text: string): void {
  localStorage.setItem(`${KEPT}.refused`, text);
  localStorage.removeItem(KEPT);
}
