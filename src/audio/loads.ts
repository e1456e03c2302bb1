import type { ValueContext } from '../core/params/param';
import type { Slot } from '../core/piece/piece';
import { fromLoads, type ToLoads } from './protocol';
import type { LoadedSound } from './soundLibrary';

/** Measures the load of effects on this machine, one after another in a worker. @returns a function that ends it */
export function measureLoads(
  slots: readonly Slot[],
  context: ValueContext,
  sounds: readonly LoadedSound[],
  onLoad: (slot: string, share: number) => void,
): () => void {
  const worker = new Worker('/rt/load.worker.js', { type: 'module' });
  let left = slots.length;
  worker.onmessage = (event: MessageEvent<unknown>) => {
    const { slot, share } = fromLoads.parse(event.data);
    onLoad(slot, share);
    left -= 1;
    if (left === 0) worker.terminate();
  };
  const order: ToLoads = {
    slots: [...slots],
    context,
    sounds: sounds.map(({ hash, channels }) => ({ hash, channels: [...channels] })),
  };
  worker.postMessage(order);
  return () => worker.terminate();
}
