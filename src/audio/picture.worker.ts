import { implementationOf } from '../core/effects/implementations';
import { toPainter } from './protocol';

/** Computes pictures by running effects, in a worker. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { effect, values, context, own } = toPainter.parse(event.data);
  self.postMessage({ picture: implementationOf(effect).picture(values, context, own) });
};
