import type { Draft } from 'immer';
import * as z from 'zod';
import type { Macro } from '../../automation/modulator';
import type { ParamValue } from '../../params/param';
import { defineEdit, EditRefused } from '../edit';
import { channelName, findLane, findMacro, findSlot, paramOf } from '../find';
import { MAIN, MAX_SNAPSHOTS, ON_PARAM, snapshotSchema, type Piece, type Slot, type Snapshot } from '../piece';
import { draftChannel } from './channels';

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

/** Sets every value that a snapshot has and that no followed lane moves; what is gone from the piece is left out. */
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

function setBase(draft: Draft<Piece>, { target, value }: Snapshot['values'][number]): void {
  switch (target.kind) {
    case 'effect': {
      const slot = findSlot(draft as Piece, target.channel, target.effect) as Draft<Slot>;
      if (target.param === ON_PARAM) slot.on = value === true;
      else slot.values[target.param] = value;
      return;
    }
    case 'tempo':
      if (typeof value === 'number') draft.tempo.bpm = value;
      return;
    case 'macro':
      if (typeof value === 'number') (findMacro(draft as Piece, target.macro) as Draft<Macro>).level = value;
      return;
    case 'send': {
      const send = draftChannel(draft, target.channel).sends.find(({ to }) => to === target.to);
      if (send && typeof value === 'number') send.level = value;
      return;
    }
    case 'channel':
      setChannelValue(draft, target.channel, target.param, value);
  }
}

function setChannelValue(draft: Draft<Piece>, channel: string, param: string, value: ParamValue): void {
  if (typeof value === 'boolean') draftChannel(draft, channel).mute = value;
  if (typeof value !== 'number') return;
  if (channel === MAIN) draft.main.gain = value;
  else draftChannel(draft, channel)[param === 'pan' ? 'pan' : 'gain'] = value;
}
