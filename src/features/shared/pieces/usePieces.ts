import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { freeName } from '../../../core/piece/freeName';
import { TEMPLATES } from '../../../core/piece/templates';
import {
  ApiProblem,
  archiveUrl,
  createPiece,
  fetchPiece,
  listBin,
  listPieces,
  readArchive,
  removePiece,
  restorePiece,
  type PieceListing,
} from '../../../data/api';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { download } from '../../studio/download';
import { openedPieces, openNewPiece, openPieceById } from '../../studio/openPieceById';
import { reasonOf } from '../../../core/reasonOf';

const LIST = ['pieces', 'list'];
const BIN = ['pieces', 'bin'];

const say = (error: unknown): void => useOpenPiece.getState().say(reasonOf(error));

/** Pieces in the order in which they were opened here, the last one first; those that never were by their last change. */
export function byLastOpened(pieces: readonly PieceListing[], opened: readonly string[]): PieceListing[] {
  const rank = ({ id }: PieceListing): number => (opened.includes(id) ? opened.indexOf(id) : opened.length);
  return [...pieces].sort((a, b) => rank(a) - rank(b) || b.updatedAt.localeCompare(a.updatedAt));
}

/** All pieces of the server and its bin, and what is done with them; problems become notices. */
export function usePieces() {
  const queries = useQueryClient();
  const list = useQuery({ queryKey: LIST, queryFn: listPieces });
  const bin = useQuery({ queryKey: BIN, queryFn: listBin });
  const [unreadable, setUnreadable] = useState<{ readonly id: string; readonly problem: ApiProblem } | null>(null);
  const again = (): Promise<void> => queries.invalidateQueries({ queryKey: ['pieces'] });
  const names = (): string[] => (list.data ?? []).map(({ name }) => name);

  const open = async (id: string): Promise<void> => {
    setUnreadable(null);
    try {
      await openPieceById(id);
      await again();
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 422) setUnreadable({ id, problem: error });
      else say(error);
    }
  };
  const make = useMutation({
    mutationFn: openNewPiece,
    onSuccess: again,
    onError: say,
  });
  const duplicate = useMutation({
    mutationFn: async (id: string) => {
      const { piece: opened, saved } = useOpenPiece.getState();
      const piece = opened?.id === id ? opened : (await fetchPiece(id)).piece;
      if (opened?.id === id) await saved();
      const copy = { ...piece, id: newId(), name: freeName(`${piece.name} copy`, names()) };
      await createPiece(copy);
      await open(copy.id);
      useOpenPiece.getState().say(`This is “${copy.name}”. “${piece.name}” is as it was.`);
    },
    onError: say,
  });
  const bringIn = useMutation({
    mutationFn: async (file: Blob) => open(await readArchive(file)),
    onSuccess: () => useOpenPiece.getState().say('The archive is a piece here now, and open.'),
    onError: say,
  });
  /** Not a mutation: it is called from a notice, when the list may be unmounted and its callbacks with it. */
  const restore = async (id: string, toOpen = false): Promise<void> => {
    try {
      await restorePiece(id);
      if (toOpen) await openPieceById(id);
      await again();
    } catch (error) {
      say(error);
    }
  };
  const remove = useMutation({
    mutationFn: async ({ id, name }: Pick<PieceListing, 'id' | 'name'>) => {
      const isOpen = useOpenPiece.getState().piece?.id === id;
      if (isOpen) await useOpenPiece.getState().saved();
      if (isOpen) await openAnother(id);
      await removePiece(id);
      await again();
      useOpenPiece.getState().say(`“${name}” is in the bin, for 30 days.`, {
        label: 'Bring back',
        spoken: `Bring ${name} back`,
        act: () => void restore(id, isOpen),
      });
    },
    onError: say,
  });
  /** The piece that was open before; an empty one where there is no other. */
  const openAnother = async (id: string): Promise<void> => {
    const [other] = byLastOpened(list.data ?? (await listPieces()), openedPieces()).filter((piece) => piece.id !== id);
    return other ? openPieceById(other.id) : openNewPiece(TEMPLATES[0]!);
  };
  /** The archive is made by the server: pending changes are saved first. */
  const takeArchive = async (id: string): Promise<void> => {
    try {
      await useOpenPiece.getState().saved();
      download(archiveUrl(id));
    } catch (error) {
      say(error);
    }
  };
  const busy = make.isPending || duplicate.isPending || bringIn.isPending || remove.isPending;
  return { list, bin, unreadable, busy, open, make, duplicate, bringIn, remove, restore, takeArchive };
}

export type Pieces = ReturnType<typeof usePieces>;
