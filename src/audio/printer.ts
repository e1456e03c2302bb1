import type { PrintJob } from '../core/engine/print';
import { fromPrinter, type ToPrinter } from './protocol';
import type { LoadedSound } from './soundLibrary';
import { startWorker, type WorkerJob } from './workerJob';

export interface Printed {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly cutShort: boolean;
}

export type PrintRun = WorkerJob<Printed>;

/** Prints in a worker of its own; playing goes on. */
export function startPrint(
  job: PrintJob,
  sounds: readonly Pick<LoadedSound, 'hash' | 'channels'>[],
  onProgress: (share: number) => void,
): PrintRun {
  const order: ToPrinter = { ...job, sounds: sounds.map(({ hash, channels }) => ({ hash, channels: [...channels] })) };
  return startWorker(
    '/rt/print.worker.js',
    order,
    'prints',
    (data) => {
      const answer = fromPrinter.parse(data);
      return answer.type === 'done' ? { type: 'done', done: answer } : answer;
    },
    onProgress,
  );
}
