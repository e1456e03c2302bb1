import type { Followed } from '../../core/piece/links/link';
import { sameTarget } from '../../core/piece/find';
import type { Piece, Target } from '../../core/piece/piece';
import type { Studio } from './studio';

/** Followers and runs as they are at this moment, whatever the beat asked for. */
export const followedNow =
  (studio: Studio, piece: Piece): Followed =>
  (modulator) => {
    const index = piece.modulators.findIndex(({ id }) => id === modulator.id);
    return () => studio.player.meters.turn(index);
  };

/** True when a parameter goes by the level of a track or by a hold, so that its way cannot be drawn ahead. */
export const followsSound = (piece: Piece, target: Target): boolean =>
  piece.links.some(
    (link) =>
      sameTarget(link.target, target) &&
      piece.modulators.some(({ id, kind }) => id === link.modulator && (kind === 'follower' || kind === 'run')),
  );
