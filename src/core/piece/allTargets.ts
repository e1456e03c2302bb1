import { effectOf } from '../effects/catalogue';
import { chainOf, channelIds, findChannel, macrosOf, slotsIn } from './find';
import { channelParams, MAIN, ON_PARAM, type Piece, type Target } from './piece';

/**
 * Everything of a channel that has a value: of its effects with their switches, its sends, its own, and the macros on
 * the main output.
 */
export function channelTargets(piece: Piece, channel: string): Target[] {
  const own = channel === MAIN ? ['gain'] : Object.keys(channelParams);
  return [
    ...slotsIn(chainOf(piece, channel)).flatMap((slot) =>
      [...effectOf(slot.effect).paramIds, ON_PARAM].map((param): Target => ({
        kind: 'effect',
        channel,
        effect: slot.id,
        param,
      })),
    ),
    ...(findChannel(piece, channel)?.sends ?? []).map(({ to }): Target => ({ kind: 'send', channel, to })),
    ...own.map((param): Target => ({ kind: 'channel', channel, param })),
    ...(channel === MAIN ? macrosOf(piece).map(({ id }): Target => ({ kind: 'macro', macro: id })) : []),
  ];
}

/** Of one channel, or of all of the piece. */
export const allTargets = (piece: Piece, channel: string | null): Target[] =>
  (channel === null ? channelIds(piece) : [channel]).flatMap((id) => channelTargets(piece, id));
