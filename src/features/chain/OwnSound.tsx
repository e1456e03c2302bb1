import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { setEffectSound } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { useSoundFile } from '../piece/useSoundFile';
import { usePiece } from '../studio/StudioProvider';
import { RecordPlace } from './RecordPlace';

type Page = 'choose' | 'record';

/** The sound that an effect works with: one of the piece, a file, or a place recorded now. */
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
        <Tap
          icon="disc"
          text={chosen ?? 'Choose a sound'}
          label={`Own sound: ${chosen ?? 'none'}. Choose`}
          onPress={() => setPage('choose')}
          style={styles.button}
        />
        <Tap
          icon={file.busy ? 'loader' : 'file-plus'}
          disabled={file.busy}
          text={file.progress ?? undefined}
          label="Take a file as the place"
          onPress={file.choose}
        />
        <Tap icon="mic" label="Record a place" onPress={() => setPage('record')} />
      </View>
      {chosen ? null : (
        <Words kind="small">
          Until then nothing rings. The place can be any sound of the piece, a file, or a room recorded by a clap or a
          sweep.
        </Words>
      )}
      <Sheet title={page === 'record' ? 'Record a place' : `${name}: ring in`} visible={page !== null} onClose={close}>
        {page === 'record' ? <RecordPlace channel={channel} slot={slot} onDone={close} /> : null}
        {page === 'choose' ? (
          <ScrollView style={styles.list}>
            {Object.entries(piece.sounds).map(([hash, sound]) => (
              <Tap
                key={hash}
                plain
                role="radio"
                chosen={hash === slot.sound}
                label={`Ring in ${sound.name}`}
                onPress={() => {
                  if (useOpenPiece.getState().run(setEffectSound, { channel, slot: slot.id, sound: hash })) close();
                }}
                style={styles.item}
              >
                <Words
                  kind={hash === slot.sound ? 'strong' : 'body'}
                >{`${sound.name} · ${(sound.frames / sound.sampleRate).toFixed(1)} s`}</Words>
              </Tap>
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
