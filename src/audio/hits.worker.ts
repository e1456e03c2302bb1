import { findOnsets } from '../core/analysis/onsets';
import { toHits } from './soundProtocol';

/** Finds the hits of each sound, on both sides added up. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { sounds, sampleRate } = toHits.parse(event.data);
  for (const { hash, channels } of sounds) {
    const [left = new Float32Array(0), right = left] = channels;
    self.postMessage({
      hash,
      onsets: findOnsets(
        left.map((x, i) => 0.5 * (x + right[i]!)),
        sampleRate,
      ),
    });
  }
};
