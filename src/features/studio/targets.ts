import { effectOf } from '../../core/effects/catalogue';
import type { Param } from '../../core/params/param';
import { chainOf, channelName, findChannel, macrosOf, slotsIn } from '../../core/piece/find';
import { namedParam } from '../../core/piece/paramName';
import {
  channelParams,
  EFFECT_ON,
  MACRO_LEVEL,
  MAIN,
  ON_PARAM,
  SEND_LEVEL,
  TEMPO,
  type Piece,
  type Target,
} from '../../core/piece/piece';

export interface TargetChoice {
  readonly target: Target;
  readonly param: Param;
}

export interface TargetFamily {
  readonly title: string;
  readonly choices: readonly TargetChoice[];
}

/** All parameters of a channel that can have moves, by effect; filtered by `free`. */
export function targetsOf(
  piece: Piece,
  channel: string,
  free: (target: Target, param: Param) => boolean,
): TargetFamily[] {
  const only = (choices: readonly TargetChoice[]): TargetChoice[] =>
    choices.filter(({ target, param }) => free(target, param));
  const own = Object.entries(channelParams).filter(([id]) => channel !== MAIN || id === 'gain');
  return [
    ...slotsIn(chainOf(piece, channel)).map((slot) => ({
      title: effectOf(slot.effect).name,
      choices: only(
        [...effectOf(slot.effect).paramIds, ON_PARAM].map((param) => ({
          target: { kind: 'effect', channel, effect: slot.id, param },
          param: param === ON_PARAM ? EFFECT_ON : namedParam(slot, param)!,
        })),
      ),
    })),
    {
      title: 'Sends',
      choices: only(
        (findChannel(piece, channel)?.sends ?? []).map((send) => ({
          target: { kind: 'send', channel, to: send.to },
          param: { ...SEND_LEVEL, label: `Send to ${channelName(piece, send.to)}` },
        })),
      ),
    },
    {
      title: 'Macros',
      choices: only(
        channel === MAIN
          ? macrosOf(piece).map(({ id, name }) => ({
              target: { kind: 'macro', macro: id },
              param: { ...MACRO_LEVEL, label: name },
            }))
          : [],
      ),
    },
    {
      title: 'Piece',
      choices: only(channel === MAIN ? [{ target: { kind: 'tempo' }, param: TEMPO }] : []),
    },
    {
      title: 'Channel',
      choices: only(own.map(([param, about]) => ({ target: { kind: 'channel', channel, param }, param: about }))),
    },
  ].filter((family) => family.choices.length > 0);
}
