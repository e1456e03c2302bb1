import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { setEffectSide } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';

/** Which track an effect listens to, to be chosen from the others. */
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
        <Tap
          icon="headphones"
          text={chosen?.name ?? 'Choose a track'}
          label={`Listens to: ${chosen?.name ?? 'no track yet'}. Choose`}
          onPress={() => setOpen(true)}
          style={styles.button}
        />
      </View>
      {chosen ? null : (
        <Words kind="small">
          Until a track is chosen it listens to its own sound. The track is heard as its effects leave it, muted or not.
        </Words>
      )}
      <Sheet title={`${effectOf(slot.effect).name}: listen to`} visible={open} onClose={() => setOpen(false)}>
        {others.length === 0 ? <Words kind="small">There is no other track in the piece.</Words> : null}
        <ScrollView style={styles.list}>
          {others.map(({ id, name }) => (
            <Tap
              key={id}
              plain
              role="radio"
              chosen={id === slot.side}
              label={`Listen to ${name}`}
              onPress={() => choose(id)}
              style={styles.item}
            >
              <Words kind={id === slot.side ? 'strong' : 'body'}>{name}</Words>
            </Tap>
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
