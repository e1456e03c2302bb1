import { impulseKey, type ImpulseNeed, type ImpulseOrder, type ImpulseSource } from '../../impulses/make';
import type { Material } from '../../impulses/materials';
import type { Room } from '../../impulses/room';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf } from '../handles';
import { convolverParams } from './params';

/** The room that the values describe. */
export function describedRoom(values: ParamValues, context: ValueContext): Room {
  const number = numbersOf(convolverParams, values, context);
  const box = [number('roomWidth'), number('roomDepth'), number('roomHeight')] as const;
  const wall = (id: 'leftWall' | 'rightWall' | 'frontWall' | 'backWall' | 'floor' | 'ceiling'): Material =>
    (values[id] ?? convolverParams[id].initial) as Material;
  return {
    box,
    scattering: number('furniture'),
    walls: [wall('leftWall'), wall('rightWall'), wall('frontWall'), wall('backWall'), wall('floor'), wall('ceiling')],
    source: [number('sourceX') * box[0], number('sourceY') * box[1], 0.4 * box[2]],
    listener: [number('listenerX') * box[0], number('listenerY') * box[1], 0.38 * box[2]],
  };
}

/** @param sound hash of the own sound, if one is chosen */
export function impulseNeed(values: ParamValues, context: ValueContext, sound: string | null): ImpulseNeed | null {
  const number = numbersOf(convolverParams, values, context);
  const from = values.source ?? 'library';
  if (from === 'own' && !sound) return null;
  const source: ImpulseSource =
    from === 'own'
      ? { kind: 'sound', hash: sound! }
      : from === 'room'
        ? { kind: 'room', room: describedRoom(values, context) }
        : { kind: 'library', id: String(values.impulse ?? convolverParams.impulse.initial) };
  const order: ImpulseOrder = {
    source,
    startSeconds: number('start') / 1000,
    lengthSeconds: number('length') / 1000,
    fade: number('fade'),
    decayScale: number('decayScale'),
    reverse: values.reverse === true,
    sampleRate: context.sampleRate,
  };
  return { key: impulseKey(order), order };
}
