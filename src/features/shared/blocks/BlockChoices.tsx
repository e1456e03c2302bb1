import { StyleSheet, View } from 'react-native';
import type { Block } from '../../../core/piece/block';
import { searchBlocks } from '../../../core/piece/searchBlocks';
import { placeBlock } from '../../../core/piece/edits/blocks';
import type { Inside } from '../../../core/piece/edits/chain';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { useTokens } from '../../../ui/theme';
import { saysBlock } from './BlockList';
import { useBlocks } from './ownPresets';
import { newId } from '../../../data/newId';

interface BlockChoicesProps {
  readonly channel: string;
  readonly at: number;
  readonly inside?: Inside | undefined;
  /** The search words. */
  readonly query: string;
  readonly onAdded?: (() => void) | undefined;
}

/** Blocks of the Shelf, to be added like an effect; nothing while there are none. */
export function BlockChoices({ channel, at, inside, query, onAdded }: BlockChoicesProps) {
  const tokens = useTokens();
  const found = searchBlocks(useBlocks(), query);
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
