import * as z from 'zod';
import { pieceSchema, type Piece } from '../piece';
import { migrateLists, type Stored } from './changedLists';

export const CURRENT_VERSION = 7;

/** From each version to the next. */
const migrations: Readonly<Record<number, (stored: Stored) => Stored>> = {
  /** 2 brought returns, and sends to them. */
  1: (stored) => ({
    ...stored,
    version: 2,
    returns: [],
    tracks: Array.isArray(stored.tracks)
      ? stored.tracks.map((track: unknown) =>
          typeof track === 'object' && track !== null ? { ...track, sends: [] } : track,
        )
      : stored.tracks,
  }),
  /** 3 brought strands and wet paths; a piece without any is the same in both. */
  2: (stored) => ({ ...stored, version: 3 }),
  /** 4 brought modulators, and links from them to parameters. */
  3: (stored) => ({ ...stored, version: 4, modulators: [], links: [] }),
  /** 5 brought snapshots. */
  4: (stored) => ({ ...stored, version: 5, snapshots: [] }),
  /** 6 brought targets and modulators that are told apart by their kind. */
  5: (stored) => ({ ...stored, version: 6, ...migrateLists(stored) }),
  /** 7 brought targets that wait for an effect as a kind of their own. */
  6: (stored) => ({ ...stored, version: 7, ...migrateLists(stored) }),
};

export class UnreadablePiece extends Error {}

/**
 * A stored document of any version as a piece of this one.
 * @throws UnreadablePiece with what is wrong and where
 */
export function readPiece(stored: unknown): Piece {
  let document: Stored | undefined = z.record(z.string(), z.unknown()).safeParse(stored).data;
  if (!document) throw new UnreadablePiece('This is not a piece: it is no JSON object.');
  let version = typeof document.version === 'number' ? document.version : NaN;
  if (!(version >= 1)) throw new UnreadablePiece('This is not a piece: it has no version.');
  if (version > CURRENT_VERSION) {
    throw new UnreadablePiece(
      `This piece was made by a newer Zephiro (version ${version}); this one reads up to ${CURRENT_VERSION}.`,
    );
  }
  while (version < CURRENT_VERSION) {
    const migrate = migrations[version];
    if (!migrate) throw new UnreadablePiece(`No way is known from version ${version} of a piece.`);
    document = migrate(document);
    version += 1;
  }
  const result = pieceSchema.safeParse(document);
  if (result.success) return result.data;
  const issue = result.error.issues[0];
  throw new UnreadablePiece(
    `The piece is damaged at ${issue?.path.join('.') || 'its root'}: ${issue?.message ?? 'unknown'}.`,
  );
}
