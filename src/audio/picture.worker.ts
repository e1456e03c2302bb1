import { implementationOf } from '../core/effects/implementations';
import { toPainter } from './protocol';

/** Runs an effect to see what it does, away from the page. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { effect, values, context, own } = toPainter.parse(event.data);
  self.postMessage({ picture: implementationOf(effect).picture(values, context, own) });
};
