import { effectOf } from '../../../core/effects/catalogue';
import { paramName } from '../../../core/piece/paramName';
import type { Slot } from '../../../core/piece/piece';
import { ParamRail } from './ParamRail';

interface SlotRailProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly param: string;
  /** Prefix of its accessible name, where rails of several effects, or one rail twice, are in view. */
  readonly before: string;
}

/** One rail of an effect by itself, away from its editor. */
export function SlotRail({ channel, slot, param: id, before }: SlotRailProps) {
  const param = effectOf(slot.effect).params[id]!;
  return (
    <ParamRail
      target={{ kind: 'effect', channel, effect: slot.id, param: id }}
      param={param}
      value={slot.values[id] ?? param.initial}
      look={id === 'mix' ? 'mix' : 'wet'}
      spoken={`${before}, ${paramName(slot, id).toLowerCase()}`}
    />
  );
}
