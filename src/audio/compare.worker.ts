import { soundFigures } from '../core/analysis/soundFigures';
import { render } from '../core/engine/render';
import { toComparer } from './protocol';

/** Renders a setting and reports its measurements. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const { key, plan, sounds, fromSample, toSample } = toComparer.parse(event.data);
  const rendered = render({
    plan,
    sounds: new Map(sounds.map((sound) => [sound.hash, sound.channels])),
    fromSample,
    toSample,
    tail: { kind: 'seconds', seconds: 0 },
  });
  self.postMessage({ key, figures: rendered ? soundFigures(rendered.left, rendered.right, plan.sampleRate) : null });
};
