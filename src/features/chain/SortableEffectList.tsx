import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { GestureHandlerRootView } from 'react-native-gesture-handler';
import { Icon } from 'react-native-paper';
import Sortable from 'react-native-sortables';
import type { Slot } from '../../core/piece/piece';
import { useTokens } from '../../ui/theme';
import type { EffectListProps } from './effectListProps';

/**
 * Effects that can be dragged to another place by their handle. In a file of its own: it is loaded when a chain has
 * something to sort.
 */
export function SortableEffectList({ slots, onMove, renderEffect }: EffectListProps) {
  return (
    <GestureHandlerRootView>
      <Sortable.Grid
        columns={1}
        data={[...slots]}
        keyExtractor={(slot: Slot) => slot.id}
        customHandle
        overDrag="vertical"
        onDragEnd={({ key, toIndex }) => onMove(key, toIndex)}
        renderItem={({ item, index }) => <>{renderEffect(item, index, <Handle />)}</>}
      />
    </GestureHandlerRootView>
  );
}

function Handle(): ReactNode {
  const tokens = useTokens();
  return (
    <Sortable.Handle>
      <View aria-hidden style={styles.grip}>
        <Icon source="menu" size={19} color={tokens.mute} />
      </View>
    </Sortable.Handle>
  );
}

const styles = StyleSheet.create({
  grip: { width: 44, height: 44, alignItems: 'center', justifyContent: 'center', cursor: 'pointer' },
});
