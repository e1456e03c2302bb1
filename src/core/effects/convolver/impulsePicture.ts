import { LONGEST_IMPULSE_SECONDS, shapingOf, sourceImpulse, type ImpulseOrder } from '../../impulses/make';
import type { ParamValues, ValueContext } from '../../params/param';
import { measuredDecay } from '../decayPicture';
import { dragEffect } from '../handles';
import type { ImpulsePicture } from '../pictures';
import { impulseNeed } from './order';
import { convolverParams } from './params';

const PICTURE_RATE = 24_000;
const STRETCHES = 240;
const FLOOR_DB = -72;
const OWN = 'own';

/** The impulse as a wave, with what of it is used. @param own samples of the own sound, at the rate of the context */
export function impulsePicture(
  values: ParamValues,
  context: ValueContext,
  own?: readonly Float32Array[],
): ImpulsePicture {
  const rate = own ? context.sampleRate : PICTURE_RATE;
  const need = impulseNeed(values, { ...context, sampleRate: rate }, own ? OWN : null);
  const order = need ? (need.order as ImpulseOrder) : null;
  const silence = new Float32Array(rate / 10);
  const source = (order && sourceImpulse(order.source, rate, new Map(own ? [[OWN, own]] : []))) ?? {
    left: silence,
    right: silence,
  };
  const whole = Math.min(source.left.length, LONGEST_IMPULSE_SECONDS * rate);
  const { from, frames, fadeFrom, gainAt } = order
    ? shapingOf(order, source)
    : { from: 0, frames: whole, fadeFrom: whole, gainAt: () => 1 };
  const loudest = Math.max(1e-9, peak(source.left), peak(source.right));
  const plain = (samples: Float32Array): number[] => levels(whole, (i) => samples[i]! / loudest);
  const used = (samples: Float32Array): number[] =>
    levels(whole, (i) => (i < from || i >= from + frames ? 0 : (samples[i]! * gainAt(i - from)) / loudest));
  const shaped = (samples: Float32Array): Float64Array =>
    Float64Array.from({ length: frames }, (_, i) => samples[from + i]! * gainAt(i));
  const [start, end, fade] = [from / rate, (from + frames) / rate, (from + fadeFrom) / rate];
  const pull = (id: string, scale: number): ReturnType<typeof dragEffect> =>
    dragEffect(convolverParams, values, context, id, 'add', scale);
  return {
    kind: 'impulse',
    spanSeconds: whole / rate,
    left: plain(source.left),
    right: plain(source.right),
    usedLeft: used(source.left),
    usedRight: used(source.right),
    fromSeconds: start,
    toSeconds: end,
    fadeSeconds: fade,
    backwards: values.reverse === true,
    measuredSeconds: measuredDecay(shaped(source.left), shaped(source.right), rate),
    handles: [
      { label: 'Start', x: start, y: FLOOR_DB / 2, pullX: pull('start', 1000), pullY: null },
      { label: 'Fade', x: fade, y: 0, pullX: pull('fade', -1 / Math.max(0.001, end - start)), pullY: null },
      {
        label: 'Length',
        x: end,
        y: FLOOR_DB / 2,
        pullX: held(pull('length', 1000), (end - start) * 1000),
        pullY: null,
        most: (end - start) * 1000,
      },
    ],
  };
}

/** A drag that begins at the end of the sound, though a longer part is set. */
const held = (pull: ReturnType<typeof dragEffect>, value: number): ReturnType<typeof dragEffect> =>
  pull ? { ...pull, value: Math.min(pull.value, value) } : null;

const peak = (samples: Float32Array): number => samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);

/** Peak of each interval, in dB. */
function levels(length: number, at: (i: number) => number): number[] {
  return Array.from({ length: STRETCHES }, (_, stretch) => {
    const begin = Math.floor((stretch * length) / STRETCHES);
    const end = Math.max(begin + 1, Math.floor(((stretch + 1) * length) / STRETCHES));
    let most = 0;
    for (let i = begin; i < end && i < length; i += 1) most = Math.max(most, Math.abs(at(i)));
    return Math.round(Math.max(FLOOR_DB, 20 * Math.log10(most + 1e-9)) * 10) / 10;
  });
}
