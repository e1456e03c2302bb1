import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { channelIds, channelName, chainOf } from '../../../core/piece/find';
import { useView } from '../../../data/view';
import { Sheet } from '../../../ui/Sheet';
import { Touchable } from '../../../ui/Touchable';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { usePiece } from '../../studio/StudioProvider';

/** The channel in view; opens the list of all. */
export function ChannelButton({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const ids = channelIds(piece);
  return (
    <>
      <Touchable label={`Channel: ${channelName(piece, channel)}`} style={styles.button} onPress={() => setOpen(true)}>
        <View style={styles.name}>
          <Text variant="titleLarge" numberOfLines={1} style={styles.words}>
            {channelName(piece, channel)}
          </Text>
          <Text variant="titleLarge">▾</Text>
        </View>
      </Touchable>
      <Sheet title="Channels" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {ids.map((id) => (
            <ListItem
              key={id}
              role="radio"
              title={`${channelName(piece, id)}  ·  ${count(chainOf(piece, id).length)}`}
              label={channelName(piece, id)}
              chosen={id === channel}
              style={styles.item}
              onPress={() => {
                useView.setState({ channel: id, slot: null });
                setOpen(false);
              }}
            />
          ))}
        </ScrollView>
      </Sheet>
    </>
  );
}

const count = (effects: number): string =>
  effects === 0 ? 'no effects' : effects === 1 ? '1 effect' : `${effects} effects`;

const styles = StyleSheet.create({
  button: { alignItems: 'flex-start', paddingHorizontal: 0 },
  name: { flexDirection: 'row', gap: 6, maxWidth: '100%' },
  words: { flexShrink: 1 },
  list: { maxHeight: 480 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
