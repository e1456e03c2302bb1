import { soundOnsets } from '../core/analysis/onsets';
import { toHits } from './soundProtocol';

/** Finds the hits of each sound, on both sides added up. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { sounds, sampleRate } = toHits.parse(event.data);
  for (const { hash, channels } of sounds) {
    self.postMessage({ hash, onsets: soundOnsets(channels, sampleRate) });
  }
};
