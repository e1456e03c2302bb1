import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { setEffectSide } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { usePiece } from '../studio/StudioProvider';

/** Chooses the track of an effect's sidechain. */
export function SideTrack({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const chosen = piece.tracks.find(({ id }) => id === slot.side);
  const others = piece.tracks.filter(({ id }) => id !== channel);
  const choose = (side: string): void => {
    if (useOpenPiece.getState().run(setEffectSide, { channel, slot: slot.id, side })) setOpen(false);
  };
  return (
    <>
      <View style={styles.row}>
        <Button
          label={`Sidechain: ${chosen?.name ?? 'no track yet'}. Choose`}
          icon="headphones"
          style={styles.button}
          onPress={() => setOpen(true)}
        >
          {chosen?.name ?? 'Choose a track'}
        </Button>
      </View>
      {chosen ? null : (
        <Text variant="bodySmall">
          Until a track is chosen it listens to its own sound. The track is heard as its effects leave it, muted or not.
        </Text>
      )}
      <Sheet title={`${effectOf(slot.effect).name}: listen to`} visible={open} onClose={() => setOpen(false)}>
        {others.length === 0 ? <Text variant="bodySmall">There is no other track in the piece.</Text> : null}
        <ScrollView style={styles.list}>
          {others.map(({ id, name }) => (
            <ListItem
              key={id}
              role="radio"
              title={name}
              label={`Listen to ${name}`}
              chosen={id === slot.side}
              style={styles.item}
              onPress={() => choose(id)}
            />
          ))}
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 8, marginVertical: 6 },
  button: { flexShrink: 1 },
  list: { maxHeight: 480 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
