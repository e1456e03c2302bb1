import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { RepeatsPicture } from '../pictures';
import { repeatsPicture } from '../repeatsPicture';
import { doublingParams } from './params';
import { DoublingProcessor } from './processor';

const create = (sampleRate: number): DoublingProcessor => new DoublingProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): RepeatsPicture {
  const time = numbersOf(doublingParams, values, context)('time');
  return repeatsPicture(
    { create, params: doublingParams, values: { ...values, detune: 0, drift: 0 }, context },
    (time * 2.6) / 1000 + 0.004,
    0.0008,
    [
      {
        label: 'Time',
        x: time / 1000,
        y: 0.7,
        pullX: dragEffect(doublingParams, values, context, 'time', 'add', 1000),
        pullY: null,
      },
    ],
  );
}

export const doublingImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
