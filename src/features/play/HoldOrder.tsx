import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { moveEffect } from '../../core/piece/edits/chain';
import { chainOf } from '../../core/piece/find';
import { useOpenPiece } from '../../data/openPiece';
import { SortableList } from '../../ui/SortableList';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';

/** The holds of a channel in the order in which the sound passes them, to be dragged; nothing for fewer than two. */
export function HoldOrder({ channel }: { readonly channel: string }) {
  const chain = chainOf(usePiece(), channel);
  const holds = chain.filter(({ effect }) => effectOf(effect).family === 'hold');
  if (holds.length < 2) return null;
  return (
    <View role="group" aria-label="Order of the holds">
      <Text variant="titleSmall" style={styles.heading}>
        The sound passes those that are here in this order
      </Text>
      <SortableList
        items={holds}
        keyOf={({ id }) => id}
        nameOf={({ effect }) => effectOf(effect).name}
        onMove={(slot, to) => useOpenPiece.getState().run(moveEffect, { channel, slot, to: chain.indexOf(holds[to]!) })}
        renderItem={({ effect }, index, handle) => (
          <View style={styles.row}>
            {handle}
            <Text>{`${index + 1}  ${effectOf(effect).name}`}</Text>
          </View>
        )}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  heading: { marginTop: 14 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
});
