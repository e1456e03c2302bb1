import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';

/**
 * Starts a worker thread in the one file that `npm run build:rt` made of it; without that from its sources, which takes a second
 * longer, and longer to render.
 * @param built folder of those files
 */
export function startWorker(name: 'decode' | 'export', built: string | undefined, order: object): Worker {
  const made = built && join(built, `${name}.worker.cjs`);
  if (made && existsSync(made)) return new Worker(made, { workerData: order });
  return new Worker(join(__dirname, 'worker.cjs'), { workerData: { entry: join(__dirname, `${name}.worker.ts`), ...order } });
}
