import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { setEffectSound } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { useSoundFile } from '../shared/sounds/useSoundFile';
import { usePiece } from '../studio/StudioProvider';
import { RecordPlace } from './RecordPlace';

type Page = 'choose' | 'record';

/** The sound that an effect uses: one of the piece, a file, or a room recorded now. */
export function OwnSound({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const piece = usePiece();
  const [page, setPage] = useState<Page | null>(null);
  const chosen = slot.sound ? piece.sounds[slot.sound]?.name : undefined;
  const { name } = effectOf(slot.effect);
  const close = (): void => setPage(null);
  const file = useSoundFile(async (given, called, onStatus) => {
    const { hash, ...info } = await uploadSound(given, called, onStatus);
    useOpenPiece
      .getState()
      .run(setEffectSound, { channel, slot: slot.id, sound: hash, info: { ...info, name: called } });
  });
  return (
    <>
      <View style={styles.row}>
        <Button
          label={`Own sound: ${chosen ?? 'none'}. Choose`}
          icon="disc"
          style={styles.button}
          onPress={() => setPage('choose')}
        >
          {chosen ?? 'Choose a sound'}
        </Button>
        <Button
          label="Take a file as the place"
          icon={file.busy ? 'loader' : 'file-plus'}
          disabled={file.busy}
          onPress={file.choose}
        >
          {file.progress ?? undefined}
        </Button>
        <IconButton icon="mic" label="Record a place" mode="outlined" onPress={() => setPage('record')} />
      </View>
      {chosen ? null : (
        <Text variant="bodySmall">
          Until then nothing rings. The place can be any sound of the piece, a file, or a room recorded by a clap or a
          sweep.
        </Text>
      )}
      <Sheet title={page === 'record' ? 'Record a place' : `${name}: ring in`} visible={page !== null} onClose={close}>
        {page === 'record' ? <RecordPlace channel={channel} slot={slot} onDone={close} /> : null}
        {page === 'choose' ? (
          <ScrollView style={styles.list}>
            {Object.entries(piece.sounds).map(([hash, sound]) => (
              <ListItem
                key={hash}
                role="radio"
                title={`${sound.name} · ${(sound.frames / sound.sampleRate).toFixed(1)} s`}
                label={`Ring in ${sound.name}`}
                chosen={hash === slot.sound}
                style={styles.item}
                onPress={() => {
                  if (useOpenPiece.getState().run(setEffectSound, { channel, slot: slot.id, sound: hash })) close();
                }}
              />
            ))}
          </ScrollView>
        ) : null}
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
