import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { RepeatsPicture } from '../pictures';
import { PICTURE_RATE, repeatsPicture } from '../repeatsPicture';
import { grainsParams } from './params';
import { GrainsProcessor } from './processor';

const create = (sampleRate: number): GrainsProcessor => new GrainsProcessor(sampleRate);

const TONE_HZ = 300;

/**
 * The times at which grains repeat a short tone: each grain that reads it is a ripple. It is long enough for even few
 * grains to read it, and has the energy of a click.
 */
function picture(values: ParamValues, context: ValueContext): RepeatsPicture {
  const number = numbersOf(grainsParams, values, context);
  const [time, scatter] = [number('time'), number('scatter')];
  const sent = Math.round(Math.min(1, 2.5 / number('density')) * PICTURE_RATE);
  const level = Math.sqrt(2 / sent);
  const input = (i: number): readonly [number, number] => {
    const x = i < sent ? level * Math.sin((2 * Math.PI * TONE_HZ * i) / PICTURE_RATE) : 0;
    return [x, x];
  };
  const span = Math.min(7, sent / PICTURE_RATE + (time + scatter) * 0.0011 + number('size') / 1000 + 0.05);
  return repeatsPicture(
    {
      create,
      params: grainsParams,
      values: { ...values, freeze: false, feedback: 0, semitones: 0, octaves: 0, detune: 0 },
      context,
      input,
    },
    span,
    0.004,
    [
      {
        label: 'Time back',
        x: time / 1000,
        y: 0.7,
        pullX: dragEffect(grainsParams, values, context, 'time', 'add', 1000),
        pullY: null,
      },
    ],
  );
}

export const grainsImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
