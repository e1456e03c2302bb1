import { preparedImpulse } from '../core/impulses/make';
import { toImpulses, type FromImpulses } from './protocol';

/** Makes and transforms impulses away from the page and the audio thread. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { key, order, sound } = toImpulses.parse(event.data);
  const prepared = preparedImpulse(order, new Map(sound ? [[sound.hash, sound.channels]] : []));
  const answer: FromImpulses = prepared
    ? { key, impulse: { frames: prepared.frames, stages: [...prepared.stages] } }
    : { key, impulse: null };
  self.postMessage(answer);
};
