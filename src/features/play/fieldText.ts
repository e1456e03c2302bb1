import { effectOf } from '../../core/effects/catalogue';
import { formatValue } from '../../core/params/format';
import { fromEngineNumber, paramAtPosition } from '../../core/params/resolve';
import { channelName, channelOfTarget, contextOf, findSlot, paramOf } from '../../core/piece/find';
import type { ParamPosition } from '../../core/piece/moves/fieldMotion';
import type { Piece, Target } from '../../core/piece/piece';

/** A parameter by its name. */
export const labelOf = (piece: Piece, target: Target): string => paramOf(piece, target)?.label ?? 'gone';

/** What a target belongs to: an effect's name, or its channel's. */
export function ownerOf(piece: Piece, target: Target): string {
  const channel = channelOfTarget(target);
  const slot = target.kind === 'effect' ? findSlot(piece, channel, target.effect) : undefined;
  return slot ? `${effectOf(slot.effect).name} on ${channelName(piece, channel)}` : channelName(piece, channel);
}

/** A parameter at a place of its rail, with its unit. */
export function valueText(piece: Piece, { target, position }: ParamPosition): string {
  const param = paramOf(piece, target);
  return param ? formatValue(param, fromEngineNumber(param, paramAtPosition(param, position)), contextOf(piece)) : '';
}
