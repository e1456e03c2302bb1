import type { SoundTreated } from '../core/engine/treatSteps';
import { fromTreater, type ToTreater } from './protocol';

/** Treats a part of a sound in a worker of its own; playing goes on. */
export function startTreating(order: ToTreater, onProgress: (share: number) => void): { readonly result: Promise<SoundTreated | null>; cancel(): void } {
  const worker = new Worker('/rt/treat.worker.js', { type: 'module' });
  let finish: (treated: SoundTreated | null) => void = () => undefined;
  const result = new Promise<SoundTreated | null>((resolve, reject) => {
    finish = resolve;
    worker.onerror = (event) => reject(new Error(event.message || 'The worker that treats clips could not be started.'));
    worker.onmessage = (event: MessageEvent<unknown>) => {
      const answer = fromTreater.parse(event.data);
      if (answer.type === 'progress') onProgress(answer.share);
      else if (answer.type === 'done') resolve(answer);
      else reject(new Error(answer.message));
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
