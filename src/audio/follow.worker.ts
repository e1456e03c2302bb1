import { followThrough } from '../core/engine/followed';
import { toFollow } from './protocol';

/** Plays what a follower follows, and tells where the follower stood. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { piece, modulator, sounds } = toFollow.parse(event.data);
  const levels = followThrough(piece, modulator, new Map(sounds.map(({ hash, channels }) => [hash, channels])));
  self.postMessage({ type: 'done', ...levels });
};
