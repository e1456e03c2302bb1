import { useQuery } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import type { Block } from '../../../core/piece/block';
import { placeBlock } from '../../../core/piece/edits/blocks';
import type { Inside } from '../../../core/piece/edits/chain';
import { listBlocks } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { useTokens } from '../../../ui/theme';
import { saysBlock } from './BlockList';
import { newId } from '../../../data/newId';

interface BlockChoicesProps {
  readonly channel: string;
  readonly at: number;
  readonly inside?: Inside | undefined;
  /** Words that the name must hold, in small letters. */
  readonly query: string;
  readonly onAdded?: (() => void) | undefined;
}

/** Blocks of the Shelf, to be added like an effect; nothing while there are none. */
export function BlockChoices({ channel, at, inside, query, onAdded }: BlockChoicesProps) {
  const tokens = useTokens();
  const blocks = useQuery({ queryKey: ['blocks'], queryFn: listBlocks });
  const found = (blocks.data ?? []).filter((block) =>
    `${block.name} ${saysBlock(block)}`.toLowerCase().includes(query),
  );
  if (found.length === 0) return null;
  const add = (block: Block): void => {
    const id = newId();
    if (useOpenPiece.getState().run(placeBlock, { channel, block, at, id, ...(inside ? { inside } : {}) }))
      useView.setState({ channel, slot: `${id}-0` });
    onAdded?.();
  };
  return (
    <View style={[styles.blocks, { borderColor: tokens.line }]}>
      <Text variant="headlineMedium">Your blocks</Text>
      {found.map((block) => (
        <ListItem
          key={block.id}
          title={block.name}
          note={saysBlock(block)}
          label={`Add block ${block.name}`}
          variant="headlineSmall"
          style={styles.item}
          onPress={() => add(block)}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  blocks: { borderTopWidth: 1, paddingTop: 8 },
  item: { alignItems: 'flex-start', paddingVertical: 7, paddingLeft: 14 },
});
