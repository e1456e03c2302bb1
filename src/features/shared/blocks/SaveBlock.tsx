import { useMutation, useQueryClient } from '@tanstack/react-query';
import { View } from 'react-native';
import { blockOf } from '../../../core/piece/block';
import type { Slot } from '../../../core/piece/piece';
import { saveBlock } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { NameField } from '../../../ui/NameField';
import { Text } from '../../../ui/Text';
import { usePiece } from '../../studio/StudioProvider';
import { newId } from '../../../data/newId';

/** Keeps effects on the Shelf under a name. */
export function SaveBlock({
  slots,
  initial,
  onSaved,
}: {
  readonly slots: readonly Slot[];
  readonly initial: string;
  readonly onSaved: () => void;
}) {
  const piece = usePiece();
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: (name: string) => saveBlock(blockOf(piece, slots, newId(), name)),
    onSuccess: async (_done, name) => {
      await queries.invalidateQueries({ queryKey: ['blocks'] });
      useOpenPiece.getState().say(`“${name}” is on the Shelf, for any piece.`);
      onSaved();
    },
  });
  return (
    <View>
      <NameField label="Name of the block" initial={initial} action="Save" onName={(name) => save.mutate(name)} />
      {save.isError ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {save.error.message}
        </Text>
      ) : null}
      <Text variant="bodySmall">Kept with all settings and links; its moves stay here.</Text>
    </View>
  );
}
