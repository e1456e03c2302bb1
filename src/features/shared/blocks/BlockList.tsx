import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Fragment } from 'react';
import { StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import { effectOf } from '../../../core/effects/catalogue';
import type { Block } from '../../../core/piece/block';
import { searchBlocks } from '../../../core/piece/searchBlocks';
import { listBlocks, removeBlock, saveBlock } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';

/**
 * Chains kept for any piece; a removed one can be brought back while the list is in view.
 * @param words show only blocks that match, by name or content
 */
export function BlockList({ words = '' }: { readonly words?: string }) {
  const queries = useQueryClient();
  const blocks = useQuery({ queryKey: ['blocks'], queryFn: listBlocks });
  const again = (): Promise<void> => queries.invalidateQueries({ queryKey: ['blocks'] });
  const tell = (error: Error): void => useOpenPiece.getState().say(error.message);
  const remove = useMutation({
    mutationFn: async (block: Block) => removeBlock(block.id).then(() => block),
    onSuccess: again,
    onError: tell,
  });
  const bringBack = useMutation({
    mutationFn: saveBlock,
    onSuccess: () => {
      remove.reset();
      return again();
    },
    onError: tell,
  });
  const found = searchBlocks(blocks.data ?? [], words);
  return (
    <View style={styles.list}>
      <Text variant="headlineSmall">Blocks</Text>
      {blocks.isPending ? <Text variant="bodySmall">Looking …</Text> : null}
      {blocks.isError ? (
        <View role="alert">
          <Text variant="bodySmall" tone="danger">
            {blocks.error.message}
          </Text>
          <Button label="Look for blocks again" style={styles.again} onPress={() => void blocks.refetch()}>
            Try again
          </Button>
        </View>
      ) : null}
      {blocks.data?.length === 0 ? (
        <Text variant="bodySmall">
          Effects saved from a chain lie here, for any piece: open the menu of a card or of a channel.
        </Text>
      ) : null}
      {found.map((block) => (
        <Fragment key={block.id}>
          <Divider />
          <View role="group" aria-label={`Block ${block.name}`} style={styles.row}>
            <View style={styles.words}>
              <Text numberOfLines={1}>{block.name}</Text>
              <Text variant="bodySmall" numberOfLines={1}>
                {saysBlock(block)}
              </Text>
            </View>
            <IconButton
              icon="trash-2"
              label={`Remove block ${block.name}`}
              tone="mute"
              onPress={() => remove.mutate(block)}
            />
          </View>
        </Fragment>
      ))}
      {remove.data ? (
        <Button
          label={`Bring back block ${remove.data.name}`}
          icon="corner-up-left"
          style={styles.again}
          onPress={() => bringBack.mutate(remove.data)}
        >{`Bring back ${remove.data.name}`}</Button>
      ) : null}
    </View>
  );
}

/** The effects of a block in a row: "Taps › Reverb". */
export const saysBlock = ({ slots }: Block): string => slots.map((slot) => effectOf(slot.effect).name).join(' › ');

const styles = StyleSheet.create({
  list: { marginTop: 14, marginBottom: 14 },
  row: { flexDirection: 'row', alignItems: 'center', minHeight: 56 },
  words: { flex: 1, minWidth: 0 },
  again: { alignSelf: 'flex-start', marginTop: 6 },
});
