import { effectOf } from '../../core/effects/catalogue';
import { findLane } from '../../core/piece/find';
import type { Piece, Slot } from '../../core/piece/piece';

/** What leads an effect and what is pinned, as far as it is ridden, and what has moves already: ids of parameters. */
export function leadingParams(piece: Piece, channel: string, slot: Slot, pinned: readonly string[]): string[] {
  const { headline, paramIds, params } = effectOf(slot.effect);
  return paramIds.filter(
    (id) =>
      (params[id]!.kind !== 'choice' && (headline.includes(id) || id === 'mix' || pinned.includes(id))) ||
      findLane(piece, { kind: 'effect', channel, effect: slot.id, param: id }) !== undefined,
  );
}
