import { Worker } from 'node:worker_threads';
import { Problem } from '../http/problem';
import { UnusableDatabase } from './database';
import type { StoreApi } from './storeApi';
import { replySchema } from './storeMessages';

/** The store's methods, each answering when its thread has done it. */
export type Store = {
  readonly [K in keyof StoreApi]: (...args: Parameters<StoreApi[K]>) => Promise<Awaited<ReturnType<StoreApi[K]>>>;
} & { readonly close: () => Promise<void> };

export interface StoreOptions {
  readonly dataFolder: string;
  /** The built program of the thread. */
  readonly program: string;
  /** Folder of the SQL files that bring a database to the newest form. */
  readonly migrations: string;
  readonly maxPages?: number;
  /** Heap of the thread, in MB. */
  readonly maxHeapMb?: number;
  /** Told what went wrong where it was nothing that the asker could mend. */
  readonly onError?: (message: string) => void;
}

interface Pending {
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: unknown) => void;
}

const DEFAULT_HEAP_MB = 2048;
const TOO_MUCH = new Problem(
  413,
  'Too large',
  'The request took more memory than there is for it. Nothing was changed.',
);
const GONE = new Problem(503, 'The server is stopping', 'Nothing was changed. Try again when it is back.');

/**
 * Starts the thread that has the database. One that ends for want of memory is started again; what it had been asked is
 * answered with 413.
 * @throws UnusableDatabase
 */
export async function openStore(options: StoreOptions): Promise<Store> {
  const thread = new StoreThread(options);
  await thread.start();
  return new Proxy({} as Store, {
    get: (_target, method) => {
      if (method === 'close') return () => thread.close();
      // A promise of a store is not one itself.
      if (method === 'then' || typeof method !== 'string') return undefined;
      return (...args: unknown[]) => thread.call(method, args);
    },
  });
}

class StoreThread {
  private worker: Worker | null = null;
  private readonly pending = new Map<number, Pending>();
  private calls = 0;
  private closing = false;

  constructor(private readonly options: StoreOptions) {}

  start(): Promise<void> {
    const { program, dataFolder, migrations, maxPages, maxHeapMb = DEFAULT_HEAP_MB } = this.options;
    const worker = new Worker(program, {
      workerData: { dataFolder, migrations, maxPages },
      resourceLimits: { maxOldGenerationSizeMb: maxHeapMb },
    });
    this.worker = worker;
    let ready = false;
    return new Promise((resolve, reject) => {
      worker.on('message', (message: unknown) => {
        const reply = replySchema.parse(message);
        if (reply.kind === 'ready') {
          ready = true;
          resolve();
        } else if (reply.kind === 'unusable') reject(new UnusableDatabase(reply.message));
        else this.settle(reply);
      });
      worker.on('error', (error) => this.options.onError?.(`The store’s thread ended: ${error.message}`));
      worker.on('exit', () => {
        reject(new UnusableDatabase('The store’s thread ended before it was ready.'));
        this.lost(ready);
      });
    });
  }

  private settle(reply: Extract<ReturnType<typeof replySchema.parse>, { readonly call: number }>): void {
    const pending = this.pending.get(reply.call);
    this.pending.delete(reply.call);
    if (!pending) return;
    if (reply.kind === 'done') {
      pending.resolve(reply.value);
      return;
    }
    if (reply.log !== null) this.options.onError?.(reply.log);
    const { status, title, detail, more } = reply.problem;
    pending.reject(new Problem(status, title, detail, more));
  }

  call(method: string, args: readonly unknown[]): Promise<unknown> {
    const { worker } = this;
    if (!worker || this.closing) return Promise.reject(GONE);
    this.calls += 1;
    const call = this.calls;
    return new Promise((resolve, reject) => {
      this.pending.set(call, { resolve, reject });
      worker.postMessage({ call, method, args }, args.flatMap(ownBuffer));
    });
  }

  /** @param again whether it had been at work, so that another may */
  private lost(again: boolean): void {
    this.worker = null;
    const asked = [...this.pending.values()];
    this.pending.clear();
    for (const { reject } of asked) reject(this.closing ? GONE : TOO_MUCH);
    if (!this.closing && again) this.start().catch((error: unknown) => this.options.onError?.(String(error)));
  }

  close(): Promise<void> {
    const { worker } = this;
    this.closing = true;
    if (!worker) return Promise.resolve();
    const ended = new Promise<void>((resolve) => worker.once('exit', () => resolve()));
    worker.postMessage('close');
    return ended;
  }
}

/** Memory of bytes that are all of their buffer: handed over, not copied. */
const ownBuffer = (arg: unknown): ArrayBuffer[] =>
  arg instanceof Uint8Array && arg.byteLength === arg.buffer.byteLength ? [arg.buffer as ArrayBuffer] : [];
