import { isLive, modulatorsOf, type LiveOutput } from '../../core/piece/links/link';
import type { Piece, Target } from '../../core/piece/piece';
import type { Studio } from './studio';

/** Outputs of followers and runs as the audio thread has them now, whatever the beat. */
export const liveOutput =
  (studio: Studio, piece: Piece): LiveOutput =>
  (modulator) => {
    const index = piece.modulators.findIndex(({ id }) => id === modulator.id);
    return () => studio.player.meters.turn(index);
  };

/** Whether a target depends on sound or on a hold, so that its course cannot be drawn ahead. */
export const isTurnedLive = (piece: Piece, target: Target): boolean => modulatorsOf(piece, target).some(isLive);
