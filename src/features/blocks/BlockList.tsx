import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import type { Block } from '../../core/piece/block';
import { listBlocks, removeBlock, saveBlock } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';

/** Chains kept for any piece; a removed one can be brought back while the list is in view. */
export function BlockList() {
  const tokens = useTokens();
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
  return (
    <View style={styles.list}>
      <Words kind="water">Blocks</Words>
      {blocks.isPending ? <Words kind="small">Looking …</Words> : null}
      {blocks.isError ? (
        <View role="alert">
          <Words kind="small" tone="danger">
            {blocks.error.message}
          </Words>
          <Tap
            label="Look for blocks again"
            text="Try again"
            onPress={() => void blocks.refetch()}
            style={styles.again}
          />
        </View>
      ) : null}
      {blocks.data?.length === 0 ? (
        <Words kind="small">
          Effects saved from a chain lie here, for any piece: open the menu of a card or of a channel.
        </Words>
      ) : null}
      {blocks.data?.map((block) => (
        <View
          key={block.id}
          role="group"
          aria-label={`Block ${block.name}`}
          style={[styles.row, { borderColor: tokens.line }]}
        >
          <View style={styles.words}>
            <Words numberOfLines={1}>{block.name}</Words>
            <Words kind="small" numberOfLines={1}>
              {saysBlock(block)}
            </Words>
          </View>
          <Tap
            plain
            icon="trash-2"
            tone="mute"
            label={`Remove block ${block.name}`}
            onPress={() => remove.mutate(block)}
          />
        </View>
      ))}
      {remove.data ? (
        <Tap
          icon="corner-up-left"
          text={`Bring back ${remove.data.name}`}
          label={`Bring back block ${remove.data.name}`}
          onPress={() => bringBack.mutate(remove.data)}
          style={styles.again}
        />
      ) : null}
    </View>
  );
}

/** The effects of a block in a row: "Taps › Reverb". */
export const saysBlock = ({ slots }: Block): string => slots.map((slot) => effectOf(slot.effect).name).join(' › ');

const styles = StyleSheet.create({
  list: { marginTop: 14, marginBottom: 14 },
  row: { flexDirection: 'row', alignItems: 'center', borderTopWidth: 1, minHeight: 56 },
  words: { flex: 1, minWidth: 0 },
  again: { alignSelf: 'flex-start', marginTop: 6 },
});
