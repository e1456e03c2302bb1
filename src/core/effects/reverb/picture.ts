import type { ParamValues, ValueContext } from '../../params/param';
import { toEngineNumber } from '../../params/resolve';
import { decayPictureOf } from '../decayPicture';
import { numbersOf, dragEffect } from '../handles';
import type { DecayPicture } from '../pictures';
import { respond } from '../respond';
import { earlyTaps } from './early';
import { reverbParams } from './params';
import { ReverbProcessor } from './processor';
import { spaceAt } from './spaces';

const PICTURE_RATE = 24_000;
const LONGEST_SECONDS = 14;

/** Parameters that the picture holds constant. */
const STILL = { freeze: 'off', input: 1, duck: 0, modDepth: 0 } as const;

/** Measures the decay of the reverb's impulse response. */
export function pictureOfReverb(values: ParamValues, context: ValueContext): DecayPicture {
  const number = numbersOf(reverbParams, values, context);
  const setSeconds = number('decay') / 1000;
  const preDelaySeconds = number('preDelay') / 1000;
  const spanSeconds = Math.min(
    LONGEST_SECONDS,
    preDelaySeconds + number('swell') / 1000 + setSeconds * Math.max(1, Math.min(1.5, number('lowDecay'))) + 0.2,
  );
  const answer = respond({
    create: (rate) => new ReverbProcessor(rate),
    params: reverbParams,
    values: { ...values, ...STILL },
    context,
    sampleRate: PICTURE_RATE,
    seconds: spanSeconds,
  });
  const space = toEngineNumber(reverbParams.space, values.space ?? reverbParams.space.initial, context);
  const taps = earlyTaps(spaceAt(space));
  const level = number('early');
  return decayPictureOf(answer.left, answer.right, PICTURE_RATE, {
    preDelaySeconds,
    setSeconds,
    handles: [
      {
        label: 'Pre-delay',
        x: preDelaySeconds,
        y: 0,
        pullX: dragEffect(reverbParams, values, context, 'preDelay', 'add', 1000),
        pullY: null,
      },
      {
        label: 'Decay',
        x: Math.min(spanSeconds, preDelaySeconds + setSeconds),
        y: -60,
        pullX: dragEffect(reverbParams, values, context, 'decay', 'add', 1000),
        pullY: null,
      },
      {
        label: 'High damping',
        x: preDelaySeconds + 0.45 * setSeconds * number('highDecay'),
        y: -27,
        pullX: dragEffect(reverbParams, values, context, 'highDecay', 'add', 1 / (0.45 * setSeconds)),
        pullY: null,
      },
    ],
    // Without early reflections none are listed.
    early:
      level === 0
        ? []
        : Array.from(taps.seconds, (seconds, i) => ({
            seconds: preDelaySeconds + seconds * number('size'),
            left: taps.left[i]! * level,
            right: taps.right[i]! * level,
            brightnessHz: 3000,
          })),
  });
}
