import { parentPort, workerData } from 'node:worker_threads';
import { toProblem } from '../http/problem';
import { openDatabase, UnusableDatabase, type Db } from './database';
import { createStoreApi, type StoreApi } from './storeApi';
import { callSchema, storeSetupSchema, type Reply } from './storeMessages';

type Method = (...args: unknown[]) => unknown;

const reply = (message: Reply, transfer: ArrayBuffer[] = []): void => parentPort?.postMessage(message, transfer);

function main(): void {
  const { dataFolder, migrations, maxPages } = storeSetupSchema.parse(workerData);
  let db: Db;
  try {
    db = openDatabase(dataFolder, migrations);
    if (maxPages !== undefined) db.pragma(`max_page_count = ${maxPages}`);
    listen(createStoreApi(db), db);
    reply({ kind: 'ready' });
  } catch (error) {
    const known = error instanceof UnusableDatabase;
    reply({
      kind: 'unusable',
      message: known ? error.message : `The database in ${dataFolder} cannot be opened: ${String(error)}.`,
    });
  }
}

function listen(api: StoreApi, db: Db): void {
  parentPort?.on('message', (message: unknown) => {
    if (message === 'close') {
      db.close();
      parentPort?.close();
      return;
    }
    const { call, method, args } = callSchema.parse(message);
    try {
      const value = (api[method as keyof StoreApi] as Method)(...args);
      reply({ kind: 'done', call, value }, buffersIn(value));
    } catch (error) {
      const { status, title, detail, more } = toProblem(error);
      const log = status === 500 ? (error instanceof Error ? (error.stack ?? error.message) : String(error)) : null;
      reply({ kind: 'failed', call, problem: { status, title, detail, more: { ...more } }, log });
    }
  });
}

/** Memory of documents in an answer: handed over, not copied. */
function buffersIn(value: unknown): ArrayBuffer[] {
  if (value instanceof Uint8Array) return [value.buffer as ArrayBuffer];
  if (typeof value !== 'object' || value === null) return [];
  return Object.values(value).flatMap((one) => (one instanceof Uint8Array ? [one.buffer as ArrayBuffer] : []));
}

main();
