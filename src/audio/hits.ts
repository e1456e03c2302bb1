import type { Onset } from '../core/analysis/onsets';
import { fromHits, type ToHits } from './soundProtocol';
import type { LoadedSound } from './soundLibrary';

/** Finds the hits of sounds, one after another in a worker. @returns how to end it */
export function findHits(
  sounds: readonly LoadedSound[],
  sampleRate: number,
  onFound: (hash: string, onsets: readonly Onset[]) => void,
): () => void {
  const worker = new Worker('/rt/hits.worker.js', { type: 'module' });
  worker.onmessage = (event: MessageEvent<unknown>) => {
    const { hash, onsets } = fromHits.parse(event.data);
    onFound(hash, onsets);
  };
  const order: ToHits = { sounds: sounds.map(({ hash, channels }) => ({ hash, channels: [...channels] })), sampleRate };
  worker.postMessage(order);
  return () => worker.terminate();
}
