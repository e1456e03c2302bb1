import * as z from 'zod';
import { create } from 'zustand';
import { planPrint } from '../../core/engine/print';
import { writeWav } from '../../core/formats/writeWav';
import { addPrint, printsTrackName, renewPrint } from '../../core/piece/edits/prints';
import { printName, printRecord } from '../../core/engine/printRecord';
import { printOrderSchema, type Piece, type Print, type PrintOrder } from '../../core/piece/piece';
import { readStored, writeStored } from '../../data/browserStorage';
import { startPrint, type Printed, type PrintRun } from '../../audio/printer';
import { ApiProblem, uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import type { Studio } from './studio';
import { newId } from '../../data/newId';
import { reasonOf } from '../../core/reasonOf';

export interface PrintWork {
  readonly id: string;
  readonly name: string;
  readonly share: number;
  readonly state: 'printing' | 'storing' | 'unsent' | 'failed';
  readonly message: string | null;
}

interface Printing {
  readonly works: readonly PrintWork[];
  set(work: PrintWork): void;
  drop(id: string): void;
}

/** Running prints; finished ones are part of the piece. */
export const usePrinting = create<Printing>((set) => ({
  works: [],
  set: (work) =>
    set(({ works }) => ({
      works: works.some((other) => other.id === work.id)
        ? works.map((other) => (other.id === work.id ? work : other))
        : [...works, work],
    })),
  drop: (id) => set(({ works }) => ({ works: works.filter((work) => work.id !== id) })),
}));

const runs = new Map<string, PrintRun>();

const startedSchema = z.array(z.strictObject({ id: z.string(), order: printOrderSchema, renews: z.boolean() }));
type Started = z.infer<typeof startedSchema>[number];

/** Prints of a piece that this window has begun, kept by it over a reload. */
const startedKey = (piece: string): string => `zephiro.prints.${piece}`;
const startedPrints = (piece: string): Started[] =>
  readStored(startedKey(piece), startedSchema, [], globalThis.sessionStorage);

function noteStarted(piece: string, started: Started): void {
  const others = startedPrints(piece).filter(({ id }) => id !== started.id);
  try {
    writeStored(startedKey(piece), [...others, started], sessionStorage);
  } catch {
    // A browser that keeps nothing: the print is made all the same, but a reload ends it.
  }
}

function forgetStarted(piece: string, id: string): void {
  writeStored(
    startedKey(piece),
    startedPrints(piece).filter((one) => one.id !== id),
    sessionStorage,
  );
}

/** Restarts prints that a reload of the page has ended. Call when all sounds are loaded. */
export function resumePrints(studio: Studio): void {
  const { piece } = useOpenPiece.getState();
  for (const { id, order, renews } of piece ? startedPrints(piece.id) : []) {
    const before = piece!.prints.find((one) => one.id === id) ?? null;
    if (renews ? before : !before) void print(studio, order, before, id);
    else forgetStarted(piece!.id, id);
  }
}

const unsent = new Map<string, () => Promise<void>>();
// They are in this window alone: leaving it is asked about.
globalThis.addEventListener?.('beforeunload', (event) => {
  if (unsent.size > 0) event.preventDefault();
});

/**
 * Starts a print in the background; the result is put on the Shelf.
 * @param again the print that it replaces @param freshId of a new one
 */
export async function print(
  studio: Studio,
  order: PrintOrder,
  again: Print | null = null,
  freshId = newId(),
): Promise<void> {
  const piece = useOpenPiece.getState().piece!;
  const id = again?.id ?? freshId;
  const name = again?.name ?? printName(piece, order);
  if (runs.has(id)) return;
  const { set, drop } = usePrinting.getState();
  const work = (state: PrintWork['state'], share: number, message: string | null = null): void =>
    set({ id, name, share, state, message });
  work('printing', 0);
  noteStarted(piece.id, { id, order, renews: again !== null });
  const run = startPrint(planPrint(piece, order), [...studio.sounds.values()], (share) => work('printing', share));
  runs.set(id, run);
  try {
    const printed = await run.result;
    runs.delete(id);
    if (!printed) {
      drop(id);
      forgetStarted(piece.id, id);
      useOpenPiece.getState().say('The print was stopped. Nothing was changed.');
      return;
    }
    const store = (): Promise<void> => storePrint({ id, name, renews: again !== null }, piece, order, printed, work);
    unsent.set(id, store);
    await store();
  } catch (error) {
    forgetStarted(piece.id, id);
    work('failed', 0, reasonOf(error));
  }
}

async function storePrint(
  { id, name, renews }: { readonly id: string; readonly name: string; readonly renews: boolean },
  piece: Piece,
  order: PrintOrder,
  printed: Printed,
  work: (state: PrintWork['state'], share: number, message?: string | null) => void,
): Promise<void> {
  work('storing', 1);
  const { sampleRate } = piece;
  const bytes = writeWav({ sampleRate, channels: [printed.left, printed.right] }, '32f');
  try {
    const { hash, ...sound } = await uploadSound(new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
    const made = printRecord(piece, order, { id, name, sound: hash, madeAt: new Date().toISOString() });
    const { run } = useOpenPiece.getState();
    const place = order.goes && { clip: newId(), track: newId(), instead: order.goes === 'instead' };
    const laid = renews
      ? run(renewPrint, { print: made, sound })
      : run(addPrint, { print: made, sound, ...(place ? { place } : {}) });
    if (!laid) throw new Error('The piece did not take it.');
    const where = order.goes ? `on the Shelf and on “${printsTrackName(piece, made)}”` : 'on the Shelf';
    useOpenPiece
      .getState()
      .say(
        printed.cutShort
          ? `${name} is ${where}. Its tail had not died away after two minutes and was cut there.`
          : renews
            ? `${name} is made again; where it was placed, it follows.`
            : `${name} is ${where}.`,
      );
    unsent.delete(id);
    forgetStarted(piece.id, id);
    usePrinting.getState().drop(id);
  } catch (error) {
    const away = error instanceof ApiProblem ? error.message : String(error);
    work('unsent', 1, `Printed, but not stored yet: ${away} The print is kept in this window.`);
  }
}

export function cancelPrint(id: string): void {
  runs.get(id)?.cancel();
  usePrinting.getState().drop(id);
  unsent.delete(id);
  const { piece } = useOpenPiece.getState();
  if (piece) forgetStarted(piece.id, id);
}

export const storeAgain = (id: string): void => void unsent.get(id)?.();
