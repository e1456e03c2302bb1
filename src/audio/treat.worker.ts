import { treatSteps } from '../core/engine/treatSteps';
import { toTreater } from './protocol';
import { reasonOf } from '../core/reasonOf';

/** Treats a part of a sound away from the page. To cancel, the page ends this worker. */
self.onmessage = (event: MessageEvent<unknown>) => {
  try {
    const order = toTreater.parse(event.data);
    const treated = treatSteps({
      ...order,
      sounds: new Map(order.sounds.map(({ hash, channels }) => [hash, channels])),
      onStep: (done) => self.postMessage({ type: 'progress', share: done / order.steps.length }),
    });
    self.postMessage({ type: 'done', channels: [...treated.channels], bodyFrames: treated.bodyFrames });
  } catch (error) {
    self.postMessage({ type: 'failed', message: reasonOf(error) });
  }
};
