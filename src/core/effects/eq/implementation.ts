import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { Handle, ResponsePicture } from '../pictures';
import { responsePicture } from '../responsePicture';
import { eqParams } from './params';
import { EqProcessor } from './processor';

const create = (sampleRate: number): EqProcessor => new EqProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): ResponsePicture {
  const number = numbersOf(eqParams, values, context);
  const band = (label: string, hz: keyof typeof eqParams, db: keyof typeof eqParams | null): Handle => ({
    label,
    x: number(hz),
    y: db ? number(db) : 0,
    pullX: dragEffect(eqParams, values, context, hz, 'times'),
    pullY: db ? dragEffect(eqParams, values, context, db, 'add') : null,
  });
  const cuts = [
    ...(values.lowCutOn === true ? [band('Low cut', 'lowCut', null)] : []),
    ...(values.highCutOn === true ? [band('High cut', 'highCut', null)] : []),
  ];
  return responsePicture({ create, params: eqParams, values, context }, [
    band('Low', 'lowHz', 'lowDb'),
    band('Body', 'bodyHz', 'bodyDb'),
    band('Edge', 'edgeHz', 'edgeDb'),
    band('High', 'highHz', 'highDb'),
    ...cuts,
  ]);
}

export const eqImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
