import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { blockOf, type Block } from '../../../core/piece/block';
import type { Slot } from '../../../core/piece/piece';
import { listBlocks, removeBlock, saveBlock } from '../../../data/api';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import type { PresetChoice } from '../../studio/played';
import { usePiece } from '../../studio/StudioProvider';

const NONE: readonly Block[] = [];

/** User presets: blocks of a single effect, available in every piece. */
export function ownPresets(blocks: readonly Block[], effect: string): PresetChoice[] {
  return blocks.flatMap(({ id, name, slots }): PresetChoice[] => {
    const [slot, more] = slots;
    const plain = slot && !more && slot.effect === effect && !slot.strands && !slot.wetPath;
    return plain ? [{ id, name, purpose: 'Your own.', values: slot.values, own: true }] : [];
  });
}

export const useBlocks = (): readonly Block[] => useQuery({ queryKey: ['blocks'], queryFn: listBlocks }).data ?? NONE;

/** Stores the setting of an effect as a user preset, and removes such a preset. */
export function useKeepPreset({ strands: _strands, wetPath: _wetPath, ...slot }: Slot) {
  const piece = usePiece();
  const queries = useQueryClient();
  const told = {
    onSuccess: () => queries.invalidateQueries({ queryKey: ['blocks'] }),
    onError: (error: Error) => useOpenPiece.getState().say(`${error.message} The effect is as it was.`),
  };
  const keep = useMutation({
    mutationFn: (name: string) =>
      saveBlock(blockOf({ ...piece, links: [] }, [{ ...slot, id: newId(), preset: null }], newId(), name)),
    ...told,
  });
  const remove = useMutation({ mutationFn: removeBlock, ...told });
  return { keep, remove };
}
