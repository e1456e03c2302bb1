import { findEffect } from '../effects/catalogue';
import {
  chainOf,
  channelIds,
  channelName,
  channelOfTarget,
  findMacro,
  findReturn,
  macrosOf,
  paramOf,
  slotsIn,
} from '../piece/find';
import { MAIN, type Piece, type Target } from '../piece/piece';

/** In files a channel's own parameters, sends and macros share one column. */
const SEND = 'send:';
const MACRO = 'macro:';
const TEMPO = 'tempo';

/** A target by names that are valid in other pieces too. */
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
  const channel = channelName(piece, channelOfTarget(target));
  const own = (parameter: string): NamedTarget => ({ channel, effect: '', number: 1, parameter });
  switch (target.kind) {
    case 'channel':
      return own(target.param);
    case 'send':
      return own(`${SEND}${findReturn(piece, target.to)?.name ?? target.to}`);
    case 'macro':
      return own(`${MACRO}${findMacro(piece, target.macro)?.name ?? target.macro}`);
    case 'tempo':
      return own(TEMPO);
    case 'effect': {
      const slots = slotsIn(chainOf(piece, target.channel));
      const effect = slots.find(({ id }) => id === target.effect)?.effect ?? '';
      const alike = slots.filter((slot) => slot.effect === effect);
      const number = Math.max(1, alike.findIndex(({ id }) => id === target.effect) + 1);
      return { channel, effect, number, parameter: target.param };
    }
    case 'awaited':
      return { channel, effect: target.effectKind, number: 1, parameter: target.param };
  }
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
  return slot ? { kind: 'effect', channel, effect: slot.id, param } : null;
}

function ownTarget(piece: Piece, channel: string, parameter: string): Target | null {
  if (parameter.startsWith(SEND)) {
    const made = piece.returns.find(({ name }) => name === parameter.slice(SEND.length));
    return made ? { kind: 'send', channel, to: made.id } : null;
  }
  if (channel !== MAIN) return { kind: 'channel', channel, param: parameter };
  if (parameter === TEMPO) return { kind: 'tempo' };
  if (!parameter.startsWith(MACRO)) return { kind: 'channel', channel, param: parameter };
  const macro = macrosOf(piece).find(({ name }) => name === parameter.slice(MACRO.length));
  return macro ? { kind: 'macro', macro: macro.id } : null;
}

/** "Humming voice, Echo, input", for a person. */
export const saidTarget = ({ channel, effect, number, parameter }: NamedTarget): string =>
  [
    channel,
    ...(effect === '' ? [] : [`${findEffect(effect)?.name ?? effect}${number > 1 ? ` ${number}` : ''}`]),
    parameter,
  ].join(', ');
