import { followThrough } from '../core/engine/followed';
import { toFollow } from './protocol';

/** Plays the signal of a follower and reports the follower's values. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { piece, modulator, sounds } = toFollow.parse(event.data);
  const levels = followThrough(piece, modulator, new Map(sounds.map(({ hash, channels }) => [hash, channels])));
  self.postMessage({ type: 'done', ...levels });
};
