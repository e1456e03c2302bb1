import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { join, parse } from 'node:path';
import { Worker } from 'node:worker_threads';
import * as z from 'zod';
import { archiveName } from '../../src/core/files/names';
import type { ExportOrder, ExportStatus } from '../../src/core/files/order';
import { insideFolder } from '../http/insideFolder';
import { Problem, toProblem } from '../http/problem';
import type { StoredExport } from '../store/exportRows';
import { syncFolder, writeWhole } from '../store/soundFiles';
import type { Store } from '../store/storeClient';

const STOPPED = 'It was stopped. Nothing of it was kept.';
/** Beside the files of an export while they are written. */
const PIECE = 'piece.json';

const toldSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('progress'), share: z.number() }),
  z.object({ type: z.literal('done'), note: z.string() }),
  z.object({ type: z.literal('failed'), code: z.string(), message: z.string() }),
]);

interface Running {
  readonly workers: Set<Worker>;
  /** Of each file, 0 to 1. */
  readonly shares: number[];
  stopped: boolean;
}

interface Waiting {
  readonly id: string;
  readonly begin: () => void;
}

interface RenderOrder {
  readonly piece: string;
  readonly order: ExportOrder;
  readonly index: number;
  readonly sounds: string;
  readonly path: string;
}

export interface ExportQueueOptions {
  readonly store: Store;
  readonly dataFolder: string;
  readonly soundsFolder: string;
  /** The built program of the thread that renders one file. */
  readonly program: string;
  /** Files rendered at once. */
  readonly size: number;
}

/**
 * Files written from pieces: rendered by worker threads, as many at once as there are cores, stored until they are put
 * away.
 */
export class ExportQueue {
  private readonly folder: string;
  private readonly making: string;
  private readonly running = new Map<string, Running>();
  private readonly waiting: Waiting[] = [];
  private busy = 0;
  private closed = false;

  constructor(private readonly options: ExportQueueOptions) {
    this.folder = join(options.dataFolder, 'exports');
    this.making = join(options.dataFolder, 'exporting');
    mkdirSync(this.folder, { recursive: true });
    mkdirSync(this.making, { recursive: true });
    for (const left of readdirSync(this.making)) rmSync(join(this.making, left), { force: true, recursive: true });
  }

  async list(piece: string): Promise<ExportStatus[]> {
    const stored = await this.options.store.listExports(piece);
    return stored.map((one) => ({
      ...one,
      files: [...one.files],
      share: this.shareOf(one),
      ahead: this.aheadOf(one.id),
    }));
  }

  private shareOf({ id, state }: StoredExport): number {
    const shares = this.running.get(id)?.shares ?? [];
    return state === 'done' ? 1 : shares.reduce((sum, share) => sum + share, 0) / Math.max(1, shares.length);
  }

  /** Files of other exports that come before the first of this one. */
  private aheadOf(id: string): number {
    return Math.max(
      0,
      this.waiting.findIndex((waiting) => waiting.id === id),
    );
  }

  /**
   * @param body an `ExportOrder` as JSON
   * @returns the id of the export
   * @throws Problem when there is nothing to write
   */
  async start(body: Uint8Array): Promise<string> {
    const { id, order, names, piece, dropped } = await this.options.store.startExport(body);
    for (const old of dropped) await rm(insideFolder(this.folder, old), { force: true, recursive: true });
    void this.run(id, piece, order, names);
    return id;
  }

  private async run(id: string, piece: string, order: ExportOrder, names: readonly string[]): Promise<void> {
    const running: Running = { workers: new Set(), shares: names.map(() => 0), stopped: false };
    this.running.set(id, running);
    const folder = insideFolder(this.making, id);
    try {
      await mkdir(folder);
      await writeWhole(join(folder, PIECE), new TextEncoder().encode(piece));
      const notes = await Promise.all(
        names.map((_name, index) => this.renderWhenFree(id, running, order, folder, index)),
      );
      const files = await nameFiles(folder, names);
      await rm(join(folder, PIECE));
      // A file gets its final name, and is listed, once it is complete.
      await rename(folder, insideFolder(this.folder, id));
      await syncFolder(this.folder);
      const told = notes.map((note, i) => (names.length > 1 && note ? `${names[i]}: ${note}` : note));
      await this.tell(id, 'done', told.filter(Boolean).join(' '), files);
    } catch (error) {
      running.stopped = true;
      for (const worker of running.workers) void worker.terminate();
      await rm(folder, { force: true, recursive: true });
      if (error instanceof Stopped) await this.tell(id, 'stopped', STOPPED);
      else {
        const { title, detail } = toProblem(error);
        await this.tell(id, 'failed', `${title}. ${error instanceof RenderFailed ? error.message : detail}`);
      }
    } finally {
      this.running.delete(id);
    }
  }

  private async tell(
    id: string,
    state: ExportStatus['state'],
    message: string,
    files: readonly { name: string; bytes: number }[] = [],
  ): Promise<void> {
    if (!this.closed) await this.options.store.tellExport(id, state, message, files).catch(() => undefined);
  }

  /** Waits until a core is free. */
  private async renderWhenFree(
    id: string,
    running: Running,
    order: ExportOrder,
    folder: string,
    index: number,
  ): Promise<string> {
    if (this.busy >= this.options.size) await new Promise<void>((begin) => this.waiting.push({ id, begin }));
    this.busy += 1;
    try {
      if (running.stopped) throw new Stopped();
      await this.tell(id, 'running', '');
      const { soundsFolder: sounds } = this.options;
      return await this.render(running, {
        piece: join(folder, PIECE),
        order,
        index,
        sounds,
        path: join(folder, `${index}`),
      });
    } finally {
      this.busy -= 1;
      this.waiting.shift()?.begin();
    }
  }

  private render(running: Running, order: RenderOrder): Promise<string> {
    const worker = new Worker(this.options.program, { workerData: order });
    running.workers.add(worker);
    return new Promise<string>((resolve, reject) => {
      worker.on('message', (message: unknown) => {
        const told = toldSchema.parse(message);
        if (told.type === 'progress') running.shares[order.index] = told.share;
        else if (told.type === 'failed') {
          reject(
            told.code ? Object.assign(new Error(told.message), { code: told.code }) : new RenderFailed(told.message),
          );
        } else {
          running.shares[order.index] = 1;
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

  /**
   * Stops an export that is being written, or puts a finished one away with its files.
   * @throws Problem 404 when there is none
   */
  async remove(id: string): Promise<void> {
    const running = this.running.get(id);
    if (running) {
      running.stopped = true;
      for (const worker of running.workers) void worker.terminate();
      await this.tell(id, 'stopped', STOPPED);
      return;
    }
    const known = await this.options.store.removeExport(id);
    if (!known) throw new Problem(404, 'There is no such export', 'It was put away already.');
    await rm(insideFolder(this.folder, id), { force: true, recursive: true });
  }

  /**
   * Folder of a finished export that has such a file.
   * @throws Problem 404 when it has not, or is not finished
   */
  async folderOf(id: string, name: string): Promise<string> {
    const found = await this.options.store.findExport(id);
    if (found?.state !== 'done' || !found.files.some((file) => file.name === name)) {
      throw notThere();
    }
    const folder = insideFolder(this.folder, id);
    insideFolder(folder, name);
    return folder;
  }

  /**
   * All files of a finished export, and a name for them together.
   * @throws Problem 404 when it is not there, or is not finished
   */
  async filesOf(id: string): Promise<{ name: string; files: { name: string; path: string }[] }> {
    const found = await this.options.store.findExport(id);
    if (found?.state !== 'done') throw notThere();
    const folder = insideFolder(this.folder, id);
    const files = found.files.map(({ name }) => ({ name, path: insideFolder(folder, name) }));
    const names = files.map(({ name }) => parse(name).name);
    return { name: archiveName(names, found.order.what), files };
  }

  /** Stops all exports; the store reports the unfinished ones when it is opened again. */
  async close(): Promise<void> {
    this.closed = true;
    const workers = [...this.running.values()].flatMap((running) => {
      running.stopped = true;
      return [...running.workers];
    });
    await Promise.all(workers.map((worker) => worker.terminate()));
  }
}

const notThere = (): Problem =>
  new Problem(404, 'There is no such file', 'It was put away, or never finished. Start the export again.');

class Stopped extends Error {}
/** A message of the render itself, shown to the user. */
class RenderFailed extends Error {}

async function nameFiles(folder: string, names: readonly string[]): Promise<{ name: string; bytes: number }[]> {
  const files: { name: string; bytes: number }[] = [];
  for (let index = 0; index < names.length; index += 1) {
    const name = distinct(names, index);
    const { size: bytes } = await stat(join(folder, `${index}`));
    await rename(join(folder, `${index}`), insideFolder(folder, name));
    files.push({ name, bytes });
  }
  await syncFolder(folder);
  return files;
}

/** Two files of one name get a figure. */
function distinct(names: readonly string[], index: number): string {
  const name = names[index]!;
  const before = names.slice(0, index).filter((other) => other === name).length;
  return before === 0 ? name : name.replace(/(\.[a-z0-9]+)$/, ` ${before + 1}$1`);
}
