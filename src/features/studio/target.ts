import { samplesToBeats } from '../../core/music/tempo';
import { channelValueIndex, slotValueIndex } from '../../core/engine/planTargets';
import { channelOfTarget, findChannel, findSlot, macrosOf } from '../../core/piece/find';
import { tempoOf } from '../../core/piece/tempoOf';
import type { Piece, Target } from '../../core/piece/piece';

/** Index of a target's parameter in the row of values that travels to the engine. */
export function valueIndex(piece: Piece, target: Target): number {
  if (target.kind !== 'effect')
    return channelValueIndex(target, findChannel(piece, channelOfTarget(target))?.sends ?? [], macrosOf(piece));
  const slot = findSlot(piece, target.channel, target.effect);
  return slot ? slotValueIndex(slot.effect, target.param) : -1;
}

/** Where in the piece a heard sample is, in beats. */
export const heardBeat = (piece: Piece, sample: number): number =>
  Math.max(0, samplesToBeats(sample, tempoOf(piece), piece.sampleRate));
