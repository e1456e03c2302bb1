import type { Draft } from 'immer';
import { withoutNeedless } from '../../automation/needlessPoints';
import { beatsFrom } from '../../music/tempo';
import { clearLaneRange, pasteLaneRange, copyLaneRange, type LaneRange } from '../moves/laneRange';
import { channelOfTarget, findChannel, findSlot, paramOf, slotsIn } from '../find';
import { tempoOf } from '../tempoOf';
import type { Clip, Lane, Piece, Target } from '../piece';
import { putLane } from './lanes';

export interface ClipPlace {
  readonly track: string;
  readonly start: number;
}

/**
 * The same parameter on another track: the channel's own, a send to the same return, or one of the first effect of the
 * same kind. Without such a send or effect the moves wait for it there.
 */
function sameParam(piece: Piece, target: Target, track: string): Target | null {
  if (target.kind === 'macro' || target.kind === 'tempo' || target.channel === track) return target;
  if (target.kind !== 'effect' && target.kind !== 'awaited') return { ...target, channel: track };
  const { param } = target;
  const effectKind =
    target.kind === 'awaited' ? target.effectKind : findSlot(piece, target.channel, target.effect)?.effect;
  if (effectKind === undefined) return null;
  const slot = slotsIn(findChannel(piece, track)?.chain ?? []).find(({ effect }) => effect === effectKind);
  return slot
    ? { kind: 'effect', channel: track, effect: slot.id, param }
    : { kind: 'awaited', channel: track, effectKind, param };
}

interface Load {
  readonly lane: Lane;
  readonly to: Target;
  readonly stretch: LaneRange;
}

/**
 * Moves the points under a clip, on lanes that travel, along with the clip.
 * @param leaves true when the clip is moved and not copied: then its old range returns to the base value
 */
export function carryMoves(
  draft: Draft<Piece>,
  clip: Clip,
  from: ClipPlace,
  to: ClipPlace,
  leaves: boolean,
  newId: string,
): void {
  const piece = draft as Piece;
  const length = beatsFrom(from.start, clip.lengthSeconds, tempoOf(piece));
  const loads = piece.lanes.flatMap((lane): Load[] => {
    if (!lane.travels || channelOfTarget(lane.target) !== from.track) return [];
    const target = sameParam(piece, lane.target, to.track);
    const stretch =
      target && paramOf(piece, target) ? copyLaneRange(piece, lane, from.start, from.start + length) : null;
    return target && stretch ? [{ lane, to: target, stretch }] : [];
  });
  for (const { lane } of leaves ? loads : []) {
    const cleared = clearLaneRange(piece, lane, from.start, from.start + length);
    if (cleared) putLane(draft, { ...cleared, points: withoutNeedless(cleared.points) });
  }
  loads.forEach(({ to: target, stretch }, i) => {
    const laid = pasteLaneRange(piece, target, to.start, stretch, 1, `${newId}-${i}`);
    if (laid) putLane(draft, { ...laid, points: withoutNeedless(laid.points), travels: true });
  });
}
