import type { SoundTreated } from '../core/engine/treatSteps';
import { fromTreater, type ToTreater } from './protocol';
import { startWorker, type WorkerJob } from './workerJob';

/** Treats a part of a sound in a worker of its own; playing goes on. */
export const startTreating = (order: ToTreater, onProgress: (share: number) => void): WorkerJob<SoundTreated> =>
  startWorker(
    '/rt/treat.worker.js',
    order,
    'treats clips',
    (data) => {
      const answer = fromTreater.parse(data);
      return answer.type === 'done' ? { type: 'done', done: answer } : answer;
    },
    onProgress,
  );
