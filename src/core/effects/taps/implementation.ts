import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { RepeatsPicture } from '../pictures';
import { repeatsPicture } from '../repeatsPicture';
import { tapsParams } from './params';
import { TapsProcessor } from './processor';

const create = (sampleRate: number): TapsProcessor => new TapsProcessor(sampleRate);

const SHORTEST_SPAN_SECONDS = 0.05;

function picture(values: ParamValues, context: ValueContext): RepeatsPicture {
  const number = numbersOf(tapsParams, values, context);
  const times = Array.from(
    { length: Math.round(number('count')) },
    (_, i) => (number(`time${i + 1}`) * number('stretch')) / 1000,
  );
  const last = Math.max(...times);
  const repeats = number('feedback') > 0 ? 2.2 : 1.12;
  const still = { ...values, input: 1 };
  const shown = repeatsPicture(
    { create, params: tapsParams, values: still, context },
    Math.max(SHORTEST_SPAN_SECONDS, last * repeats),
    Math.max(0.001, last / 200),
  );
  const handles = times.map((seconds, i) => ({
    label: `Tap ${i + 1}`,
    x: seconds,
    y: number(`level${i + 1}`),
    pullX: dragEffect(tapsParams, values, context, `time${i + 1}`, 'add', 1000 / number('stretch')),
    pullY: dragEffect(tapsParams, values, context, `level${i + 1}`, 'times'),
  }));
  return { ...shown, firstSeconds: times[0]!, feedback: number('feedback'), handles };
}

export const tapsImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
