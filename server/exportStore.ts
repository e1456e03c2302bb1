import { randomUUID } from 'node:crypto';
import { mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import * as z from 'zod';
import { exportFileSchema, exportOrderSchema, EXPORT_STATES, type ExportOrder, type ExportStatus } from '../src/core/files/order';
import { exportParts } from '../src/core/files/parts';
import type { Piece } from '../src/core/piece/piece';
import type { Db } from './database';
import { insideFolder } from './insideFolder';
import { Problem, toProblem } from './problem';
import { startWorker } from './startWorker';

const MOST_KEPT = 40;
const STOPPED = 'It was stopped. Nothing of it was kept.';
const rowSchema = z.object({ id: z.string(), piece_id: z.string(), made_at: z.string(), state: z.enum(EXPORT_STATES), message: z.string(), document: z.string(), files: z.string() });
const toldSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('progress'), share: z.number() }),
  z.object({ type: z.literal('done'), note: z.string() }),
  z.object({ type: z.literal('failed'), code: z.string(), message: z.string() }),
]);

interface Running {
  readonly workers: Set<Worker>;
  readonly shares: number[];
  stopped: boolean;
}

/** Files written from pieces: rendered by worker threads, as many at once as there are cores, kept until they are put away. */
export class ExportStore {
  private readonly folder: string;
  private readonly making: string;
  private readonly running = new Map<string, Running>();
  private readonly queue: (() => void)[] = [];
  private busy = 0;

  /** @param built where its worker is in one file */
  constructor(private readonly db: Db, private readonly dataFolder: string, private readonly built?: string) {
    this.folder = join(dataFolder, 'exports');
    this.making = join(dataFolder, 'exporting');
    mkdirSync(this.folder, { recursive: true });
    mkdirSync(this.making, { recursive: true });
    for (const left of readdirSync(this.making)) rmSync(join(this.making, left), { force: true, recursive: true });
    db.prepare("UPDATE exports SET state = 'stopped', message = ? WHERE state IN ('waiting', 'running')").run('The server was stopped while this was written. Nothing of it was kept: start it again.');
  }

  list(piece: string): ExportStatus[] {
    const rows = z.array(rowSchema).parse(this.db.prepare('SELECT * FROM exports WHERE piece_id = ? ORDER BY made_at DESC').all(piece));
    return rows.map((row) => ({
      id: row.id, piece: row.piece_id, madeAt: row.made_at, state: row.state, message: row.message, share: this.shareOf(row.id, row.state),
      order: exportOrderSchema.parse(JSON.parse(row.document)), files: z.array(exportFileSchema).parse(JSON.parse(row.files)),
    }));
  }

  private shareOf(id: string, state: string): number {
    const shares = this.running.get(id)?.shares ?? [];
    return state === 'done' ? 1 : shares.reduce((sum, share) => sum + share, 0) / Math.max(1, shares.length);
  }

  /** @throws Problem when there is nothing to write */
  start(piece: Piece, order: ExportOrder): string {
    const parts = exportParts(piece, order);
    if (parts.length === 0) throw new Problem(422, 'Nothing to write', 'No track or print of this piece was asked for. Choose some, then start again.');
    if (order.toBeat <= order.fromBeat) throw new Problem(422, 'Nothing to write', 'The end lies before the beginning. Choose another stretch.');
    const id = randomUUID();
    this.db.prepare("INSERT INTO exports (id, piece_id, made_at, state, message, document, files) VALUES (?, ?, ?, 'waiting', '', ?, '[]')").run(id, piece.id, new Date().toISOString(), JSON.stringify(order));
    this.dropOldest(piece.id);
    void this.run(id, piece, order, parts.map(({ name }) => `${name}.${order.format.startsWith('flac') ? 'flac' : 'wav'}`));
    return id;
  }

  private dropOldest(piece: string): void {
    for (const { id, state } of this.list(piece).slice(MOST_KEPT)) if (state !== 'running' && state !== 'waiting') this.remove(id);
  }

  private async run(id: string, piece: Piece, order: ExportOrder, names: readonly string[]): Promise<void> {
    const running: Running = { workers: new Set(), shares: names.map(() => 0), stopped: false };
    this.running.set(id, running);
    const folder = join(this.making, id);
    try {
      mkdirSync(folder);
      const notes = await Promise.all(names.map((name, index) => this.whenFree(() => this.render(id, running, { piece, order, index, sounds: join(this.dataFolder, 'sounds'), path: join(folder, `${index}`) }).then((note) => (names.length > 1 && note ? `${name}: ${note}` : note)))));
      const files = names.map((name, index) => ({ name: distinct(names, index), bytes: statSync(join(folder, `${index}`)).size }));
      // Only what is whole gets its name and is listed.
      files.forEach(({ name }, index) => renameSync(join(folder, `${index}`), join(folder, name)));
      renameSync(folder, join(this.folder, id));
      this.tell(id, 'done', notes.filter(Boolean).join(' '), files);
    } catch (error) {
      running.stopped = true;
      for (const worker of running.workers) void worker.terminate();
      rmSync(folder, { force: true, recursive: true });
      if (error instanceof Stopped) this.tell(id, 'stopped', STOPPED);
      else this.tell(id, 'failed', `${toProblem(error).title}. ${error instanceof RenderFailed ? error.message : toProblem(error).detail}`);
    } finally {
      this.running.delete(id);
    }
  }

  private tell(id: string, state: ExportStatus['state'], message: string, files: readonly { name: string; bytes: number }[] = []): void {
    if (this.db.open) this.db.prepare('UPDATE exports SET state = ?, message = ?, files = ? WHERE id = ?').run(state, message, JSON.stringify(files), id);
  }

  /** Waits until a core is free. */
  private async whenFree<T>(act: () => Promise<T>): Promise<T> {
    if (this.busy >= Math.max(1, availableParallelism())) await new Promise<void>((resolve) => this.queue.push(resolve));
    this.busy += 1;
    try {
      return await act();
    } finally {
      this.busy -= 1;
      this.queue.shift()?.();
    }
  }

  private render(id: string, running: Running, work: { readonly piece: Piece; readonly order: ExportOrder; readonly index: number; readonly sounds: string; readonly path: string }): Promise<string> {
    if (running.stopped) return Promise.reject(new Stopped());
    this.tell(id, 'running', '');
    const worker = startWorker('export', this.built, work);
    running.workers.add(worker);
    return new Promise<string>((resolve, reject) => {
      worker.on('message', (message: unknown) => {
        const told = toldSchema.parse(message);
        if (told.type === 'progress') running.shares[work.index] = told.share;
        else if (told.type === 'failed') reject(told.code ? Object.assign(new Error(told.message), { code: told.code }) : new RenderFailed(told.message));
        else {
          running.shares[work.index] = 1;
          resolve(told.note);
        }
      });
      worker.on('error', reject);
      worker.on('exit', () => {
        running.workers.delete(worker);
        reject(new Stopped());
      });
    });
  }

  /** Stops one that is being written, or puts one away with its files. */
  remove(id: string): void {
    const running = this.running.get(id);
    if (running) {
      running.stopped = true;
      for (const worker of running.workers) void worker.terminate();
      this.tell(id, 'stopped', STOPPED);
      return;
    }
    const row = this.db.prepare('SELECT id FROM exports WHERE id = ?').get(id);
    if (!row) throw new Problem(404, 'There is no such export', 'It was put away already.');
    rmSync(insideFolder(this.folder, id), { force: true, recursive: true });
    this.db.prepare('DELETE FROM exports WHERE id = ?').run(id);
  }

  /** Path of a finished file. */
  pathOf(id: string, name: string): string {
    const row = this.db.prepare("SELECT files FROM exports WHERE id = ? AND state = 'done'").get(id);
    const files = row ? z.array(exportFileSchema).parse(JSON.parse(z.object({ files: z.string() }).parse(row).files)) : [];
    if (!files.some((file) => file.name === name)) throw new Problem(404, 'There is no such file', 'It was put away, or never finished. Start the export again.');
    return insideFolder(insideFolder(this.folder, id), name);
  }
}

class Stopped extends Error {}
/** Something said by the render itself, for the person to read. */
class RenderFailed extends Error {}

/** Two files of one name get a figure. */
function distinct(names: readonly string[], index: number): string {
  const name = names[index]!;
  const before = names.slice(0, index).filter((other) => other === name).length;
  return before === 0 ? name : name.replace(/(\.[a-z]+)$/, ` ${before + 1}$1`);
}
