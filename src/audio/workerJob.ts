interface Answered<Done> {
  readonly type: 'progress' | 'done' | 'failed';
  readonly share?: number;
  readonly message?: string;
  readonly done?: Done;
}

/** Work in a worker of its own: how it ends, and how to end it early. */
export interface WorkerJob<Done> {
  /** Null when it was cancelled. */
  readonly result: Promise<Done | null>;
  cancel(): void;
}

/**
 * Starts a worker on one order; playing goes on. To cancel, the worker is ended.
 * @param read parses its messages
 * @param what description, for the message when it cannot be started
 */
export function startWorker<Done>(
  url: string,
  order: unknown,
  what: string,
  read: (data: unknown) => Answered<Done>,
  onProgress: (share: number) => void,
): WorkerJob<Done> {
  const worker = new Worker(url, { type: 'module' });
  let finish: (done: Done | null) => void = () => undefined;
  const result = new Promise<Done | null>((resolve, reject) => {
    finish = resolve;
    worker.onerror = (event) => reject(new Error(event.message || `The worker that ${what} could not be started.`));
    worker.onmessage = (event: MessageEvent<unknown>) => {
      const answer = read(event.data);
      if (answer.type === 'progress') onProgress(answer.share ?? 0);
      else if (answer.type === 'done') resolve(answer.done ?? null);
      else reject(new Error(answer.message ?? `The worker that ${what} failed.`));
    };
  });
  worker.postMessage(order);
  return {
    result: result.finally(() => worker.terminate()),
    cancel: () => {
      worker.terminate();
      finish(null);
    },
  };
}
