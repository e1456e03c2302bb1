import type { FollowedLevels } from '../core/automation/follower';
import type { Follower } from '../core/automation/modulator';
import type { Piece } from '../core/piece/piece';
import { fromFollow, type ToFollow } from './protocol';
import type { LoadedSound } from './soundLibrary';
import { startWorker } from './workerJob';

/** The values of a follower through the piece, computed in a worker of its own. */
export async function follow(
  piece: Piece,
  modulator: Follower,
  sounds: readonly Pick<LoadedSound, 'hash' | 'channels'>[],
): Promise<FollowedLevels> {
  const order: ToFollow = {
    piece,
    modulator,
    sounds: sounds.map(({ hash, channels }) => ({ hash, channels: [...channels] })),
  };
  const read = (data: unknown) => {
    const { type, ...done } = fromFollow.parse(data);
    return { type, done };
  };
  const levels = await startWorker('/rt/follow.worker.js', order, 'follows', read, () => undefined).result;
  if (!levels) throw new Error('Following was stopped.');
  return levels;
}
