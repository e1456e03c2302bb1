import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { channelIds, channelName, chainOf } from '../../core/piece/find';
import { useSession } from '../../data/session';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';

/** The channel in view; opens the list of all. */
export function ChannelButton({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const ids = channelIds(piece);
  return (
    <>
      <Tap plain label={`Channel: ${channelName(piece, channel)}`} onPress={() => setOpen(true)} style={styles.button}>
        <Words kind="title" numberOfLines={1}>
          {channelName(piece, channel)} ▾
        </Words>
      </Tap>
      <Sheet title="Channels" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {ids.map((id) => (
            <Tap
              key={id}
              plain
              role="radio"
              label={channelName(piece, id)}
              chosen={id === channel}
              onPress={() => {
                useSession.getState().set({ channel: id, slot: null });
                setOpen(false);
              }}
              style={styles.item}
            >
              <Words
                kind={id === channel ? 'strong' : 'body'}
              >{`${channelName(piece, id)}  ·  ${count(chainOf(piece, id).length)}`}</Words>
            </Tap>
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
  list: { maxHeight: 480 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
