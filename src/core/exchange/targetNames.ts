import { findEffect } from '../effects/catalogue';
import {
  chainOf,
  channelIds,
  channelName,
  findReturn,
  kindWaitedFor,
  macroOf,
  paramOf,
  sendOf,
  slotsIn,
} from '../piece/find';
import { macroParam, MAIN, sendParam, type Piece, type Target } from '../piece/piece';

/** A target by names that mean something in another piece too. */
export interface NamedTarget {
  readonly channel: string;
  /** Id of the effect's kind; empty for the channel's own. */
  readonly effect: string;
  /** Which of that kind in the chain, from 1. */
  readonly number: number;
  /** Id of the parameter; `send:` and `macro:` are followed by a name. */
  readonly parameter: string;
}

export function namedTarget(piece: Piece, target: Target): NamedTarget {
  const channel = channelName(piece, target.channel);
  if (target.effect !== null) {
    const slots = slotsIn(chainOf(piece, target.channel));
    const effect = slots.find(({ id }) => id === target.effect)?.effect ?? kindWaitedFor(target) ?? '';
    const alike = slots.filter((slot) => slot.effect === effect);
    return {
      channel,
      effect,
      number: Math.max(1, alike.findIndex(({ id }) => id === target.effect) + 1),
      parameter: target.param,
    };
  }
  const to = sendOf(target.param);
  const macro = macroOf(piece, target.param);
  const parameter =
    to !== undefined ? sendParam(findReturn(piece, to)?.name ?? to) : macro ? macroParam(macro.name) : target.param;
  return { channel, effect: '', number: 1, parameter };
}

/** The target of a piece that has these names, or null. */
export function targetNamed(piece: Piece, { channel, effect, number, parameter }: NamedTarget): Target | null {
  const id = channelIds(piece).find((candidate) => channelName(piece, candidate) === channel);
  if (id === undefined) return null;
  const target = effect === '' ? ownTarget(piece, id, parameter) : effectTarget(piece, id, effect, number, parameter);
  return target && paramOf(piece, target) ? target : null;
}

function effectTarget(piece: Piece, channel: string, effect: string, number: number, param: string): Target | null {
  const slot = slotsIn(chainOf(piece, channel)).filter((candidate) => candidate.effect === effect)[number - 1];
  return slot ? { channel, effect: slot.id, param } : null;
}

function ownTarget(piece: Piece, channel: string, parameter: string): Target | null {
  const [kind, ...rest] = parameter.split(':');
  const name = rest.join(':');
  if (kind === 'send') {
    const made = piece.returns.find((candidate) => candidate.name === name);
    return made ? { channel, effect: null, param: sendParam(made.id) } : null;
  }
  if (kind === 'macro') {
    const macro = piece.modulators.find((candidate) => candidate.name === name);
    return macro && channel === MAIN ? { channel, effect: null, param: macroParam(macro.id) } : null;
  }
  return { channel, effect: null, param: parameter };
}

/** "Humming voice, Echo, input", for a person. */
export const saidTarget = ({ channel, effect, number, parameter }: NamedTarget): string =>
  [
    channel,
    ...(effect === '' ? [] : [`${findEffect(effect)?.name ?? effect}${number > 1 ? ` ${number}` : ''}`]),
    parameter,
  ].join(', ');
