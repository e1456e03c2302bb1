import { effectOf } from '../effects/catalogue';
import { chainOf, channelIds, findChannel, macrosOf, slotsIn } from './find';
import { channelParams, macroParam, MAIN, ON_PARAM, sendParam, type Piece, type Target } from './piece';

/**
 * Everything of a channel that has a value: of its effects with their switches, its sends, its own, and the macros on
 * the main output.
 */
export function channelTargets(piece: Piece, channel: string): Target[] {
  const own =
    channel === MAIN ? ['gain', ...macrosOf(piece).map(({ id }) => macroParam(id))] : Object.keys(channelParams);
  const sends = (findChannel(piece, channel)?.sends ?? []).map(({ to }) => sendParam(to));
  const effects = slotsIn(chainOf(piece, channel)).flatMap((slot) =>
    [...effectOf(slot.effect).paramIds, ON_PARAM].map((param): Target => ({ channel, effect: slot.id, param })),
  );
  return [...effects, ...[...sends, ...own].map((param): Target => ({ channel, effect: null, param }))];
}

/** Of one channel, or of all of the piece. */
export const allTargets = (piece: Piece, channel: string | null): Target[] =>
  (channel === null ? channelIds(piece) : [channel]).flatMap((id) => channelTargets(piece, id));
