import { render } from '../core/engine/render';
import { toPrinter } from './protocol';
import { reasonOf } from '../core/reasonOf';

const PROGRESS_MS = 80;

/** Prints away from the page. To cancel, the page ends this worker. */
self.onmessage = (event: MessageEvent<unknown>) => {
  try {
    const order = toPrinter.parse(event.data);
    let told = 0;
    const rendered = render({
      ...order,
      sounds: new Map(order.sounds.map((sound) => [sound.hash, sound.channels])),
      onProgress: (share) => {
        const now = performance.now();
        if (now - told > PROGRESS_MS) {
          told = now;
          self.postMessage({ type: 'progress', share });
        }
        return true;
      },
    });
    if (!rendered) throw new Error('The print was stopped.');
    self.postMessage({ type: 'done', ...rendered }, { transfer: [rendered.left.buffer, rendered.right.buffer] });
  } catch (error) {
    self.postMessage({ type: 'failed', message: reasonOf(error) });
  }
};
