import type { Macro } from '../automation/modulator';
import { effectOf } from '../effects/catalogue';
import { channelParams, ON_PARAM, type Send, type Slot, type Target } from '../piece/piece';
import type { PlanTarget } from './plan';

const CHANNEL_PARAM_IDS = Object.keys(channelParams);

/**
 * Index of a target among a channel's own values: its level, pan and mute, then its sends in order, or the macros on
 * the main output; -1 for none.
 */
export function channelValueIndex(
  target: Target,
  sends: readonly Pick<Send, 'to'>[],
  macros: readonly Pick<Macro, 'id'>[],
): number {
  const beyond = (index: number): number => (index < 0 ? -1 : CHANNEL_PARAM_IDS.length + index);
  switch (target.kind) {
    case 'channel':
      return CHANNEL_PARAM_IDS.indexOf(target.param);
    case 'send':
      return beyond(sends.findIndex(({ to }) => to === target.to));
    case 'macro':
      return beyond(macros.findIndex(({ id }) => id === target.macro));
    case 'effect':
    case 'awaited':
    case 'tempo':
      return -1;
  }
}

/** Index of a parameter of an effect, or of its switch, which comes after them; -1 for none. */
export function slotValueIndex(effect: string, param: string): number {
  const { paramIds } = effectOf(effect);
  return param === ON_PARAM ? paramIds.length : paramIds.indexOf(param);
}

/**
 * Where a target is in the rows of a channel; null when it is not there.
 * @param slots every effect of the channel at any depth, in the order in which plans count them
 */
export function planTarget(
  target: Target,
  slots: readonly Slot[],
  sends: readonly Send[],
  macros: readonly Macro[],
): PlanTarget | null {
  if (target.kind !== 'effect') {
    const value = channelValueIndex(target, sends, macros);
    return value < 0 ? null : { slot: -1, value };
  }
  const slot = slots.findIndex(({ id }) => id === target.effect);
  const value = slot < 0 ? -1 : slotValueIndex(slots[slot]!.effect, target.param);
  return value < 0 ? null : { slot, value };
}
