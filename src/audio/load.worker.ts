import { effectLoad } from '../core/engine/load';
import { toLoads } from './protocol';

/** Measures the load of each effect, one after another. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { slots, context, sounds } = toLoads.parse(event.data);
  const known = new Map(sounds.map((sound) => [sound.hash, sound.channels]));
  for (const slot of slots)
    self.postMessage({ slot: slot.id, share: effectLoad(slot, context, known, () => performance.now()) });
};
