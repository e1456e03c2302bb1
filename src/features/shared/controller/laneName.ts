import { effectOf } from '../../../core/effects/catalogue';
import type { Param } from '../../../core/params/param';
import { findSlot } from '../../../core/piece/find';
import type { Lane, Piece, Target } from '../../../core/piece/piece';

/** "Echo feedback", or "Pan"; of an effect that is not there, by its kind. */
export function laneName(piece: Piece, lane: Pick<Lane, 'target'>, param: Param): string {
  const kind = effectKindOf(piece, lane.target);
  return kind ? `${effectOf(kind).name} ${param.label.toLowerCase()}` : param.label;
}

function effectKindOf(piece: Piece, target: Target): string | undefined {
  if (target.kind === 'awaited') return target.effectKind;
  return target.kind === 'effect' ? findSlot(piece, target.channel, target.effect)?.effect : undefined;
}
