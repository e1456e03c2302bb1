import type { PrintJob } from '../core/engine/print';
import { fromPrinter, type ToPrinter } from './protocol';
import type { LoadedSound } from './soundLibrary';

export interface Printed {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly cutShort: boolean;
}

export interface PrintRun {
  /** Null when it was cancelled. */
  readonly result: Promise<Printed | null>;
  cancel(): void;
}

/** Prints in a worker of its own; playing goes on. */
export function startPrint(job: PrintJob, sounds: readonly Pick<LoadedSound, 'hash' | 'channels'>[], onProgress: (share: number) => void): PrintRun {
  const worker = new Worker('/rt/print.worker.js', { type: 'module' });
  let finish: (printed: Printed | null) => void = () => undefined;
  const result = new Promise<Printed | null>((resolve, reject) => {
    finish = resolve;
    worker.onerror = (event) => reject(new Error(event.message || 'The print worker could not be started.'));
    worker.onmessage = (event: MessageEvent<unknown>) => {
      const answer = fromPrinter.parse(event.data);
      if (answer.type === 'progress') onProgress(answer.share);
      else if (answer.type === 'done') resolve(answer);
      else reject(new Error(answer.message));
    };
  });
  const order: ToPrinter = { ...job, sounds: sounds.map(({ hash, channels }) => ({ hash, channels: [...channels] })) };
  worker.postMessage(order);
  return {
    result: result.finally(() => worker.terminate()),
    cancel: () => {
      worker.terminate();
      finish(null);
    },
  };
}
