import { effectOf } from '../../../core/effects/catalogue';
import type { Param } from '../../../core/params/param';
import { findSlot, kindWaitedFor } from '../../../core/piece/find';
import type { Lane, Piece } from '../../../core/piece/piece';

/** "Echo feedback", or "Pan"; of an effect that is not there, by its kind. */
export function laneName(piece: Piece, lane: Pick<Lane, 'target'>, param: Param): string {
  const slot = lane.target.kind === 'effect' ? findSlot(piece, lane.target.channel, lane.target.effect) : undefined;
  const kind = slot?.effect ?? kindWaitedFor(lane.target);
  return kind ? `${effectOf(kind).name} ${param.label.toLowerCase()}` : param.label;
}
