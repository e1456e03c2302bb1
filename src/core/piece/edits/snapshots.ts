import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelName, findLane, paramOf } from '../find';
import { MAX_SNAPSHOTS, snapshotSchema, type Piece, type Snapshot } from '../piece';
import { setBase } from './setBase';

const found = (piece: Piece, id: string): Snapshot | undefined =>
  piece.snapshots.find((snapshot) => snapshot.id === id);
const nameOf = (piece: Piece, id: string): string => found(piece, id)?.name ?? 'a snapshot';

export const keepSnapshot = defineEdit({
  name: 'keepSnapshot',
  args: z.strictObject({ snapshot: snapshotSchema }),
  label: ({ snapshot }, before) =>
    `Snapshot ${snapshot.name} of ${snapshot.channel === null ? 'the piece' : channelName(before, snapshot.channel)}`,
  apply: (draft, { snapshot }) => {
    if (draft.snapshots.length >= MAX_SNAPSHOTS)
      throw new EditRefused(`${MAX_SNAPSHOTS} snapshots can be kept of a piece. Let one go first.`);
    draft.snapshots.push(snapshot);
  },
});

export const dropSnapshot = defineEdit({
  name: 'dropSnapshot',
  args: z.strictObject({ id: z.string() }),
  label: ({ id }, before) => `Let go of snapshot ${nameOf(before, id)}`,
  apply: (draft, { id }) => {
    draft.snapshots = draft.snapshots.filter((snapshot) => snapshot.id !== id);
  },
});

/** Sets every value of a snapshot that no active lane moves; targets that no longer exist are skipped. */
export const recallSnapshot = defineEdit({
  name: 'recallSnapshot',
  args: z.strictObject({ id: z.string() }),
  label: ({ id }, before) => `Recall ${nameOf(before, id)}`,
  apply: (draft, { id }) => {
    const snapshot = found(draft as Piece, id);
    if (!snapshot) throw new EditRefused('That snapshot is no longer in the piece.');
    for (const one of snapshot.values)
      if (paramOf(draft as Piece, one.target) && !findLane(draft as Piece, one.target)?.on) setBase(draft, one);
  },
});
