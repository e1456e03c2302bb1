import type { SoundFigures } from '../core/analysis/soundFigures';
import type { CompareJob } from '../core/engine/compare';
import { fromComparer, type ToComparer } from './protocol';
import type { LoadedSound } from './soundLibrary';

/** Measures several settings one after another, in a worker. @returns a function that ends it */
export function compareAll(
  jobs: ReadonlyMap<string, CompareJob>,
  sounds: readonly LoadedSound[],
  onFigures: (key: string, figures: SoundFigures | null) => void,
): () => void {
  const worker = new Worker('/rt/compare.worker.js', { type: 'module' });
  const waiting = [...jobs];
  const next = (): void => {
    const [key, job] = waiting.shift() ?? [];
    if (key === undefined || !job) {
      worker.terminate();
      return;
    }
    const order: ToComparer = {
      key,
      ...job,
      sounds: sounds.map(({ hash, channels }) => ({ hash, channels: [...channels] })),
    };
    worker.postMessage(order);
  };
  worker.onmessage = (event: MessageEvent<unknown>) => {
    const { key, figures } = fromComparer.parse(event.data);
    onFigures(key, figures);
    next();
  };
  next();
  return () => worker.terminate();
}
