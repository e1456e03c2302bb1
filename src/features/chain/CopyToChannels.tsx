import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { copyEffects } from '../../core/piece/edits/chain';
import { channelIds, channelName } from '../../core/piece/find';
import type { Slot } from '../../core/piece/piece';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';

interface CopyToChannelsProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly onDone: () => void;
}

/** Copies an effect with its links to the channels that are picked, as one step of the history. */
export function CopyToChannels({ channel, slot, onDone }: CopyToChannelsProps) {
  const piece = usePiece();
  const [picked, setPicked] = useState<readonly string[]>([]);
  const others = channelIds(piece).filter((id) => id !== channel);
  const toggle = (id: string): void =>
    setPicked(picked.includes(id) ? picked.filter((other) => other !== id) : [...picked, id]);
  const copy = (): void => {
    const copies = picked.map((to) => ({ to, id: newId() }));
    if (useOpenPiece.getState().run(copyEffects, { channel, slot: slot.id, copies })) onDone();
  };
  return (
    <>
      <ScrollView style={styles.list}>
        <Text variant="bodySmall">It goes to the end of each chain, with what it is linked to.</Text>
        <View role="group" aria-label="Channels that get a copy" style={styles.chips}>
          {others.map((id) => (
            <Chip
              key={id}
              role="switch"
              label={`Copy to ${channelName(piece, id)}`}
              chosen={picked.includes(id)}
              tone="sea"
              onPress={() => toggle(id)}
            >
              {channelName(piece, id)}
            </Chip>
          ))}
        </View>
      </ScrollView>
      <Button mode="contained" tone="sea" disabled={picked.length === 0} onPress={copy}>
        {picked.length > 1 ? `Copy to ${picked.length} channels` : 'Copy'}
      </Button>
    </>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 460, marginBottom: 12 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 12 },
});
