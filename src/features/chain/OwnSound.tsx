import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { setEffectSound } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';

/** The sound of the piece that an effect works with, and the list to choose another. */
export function OwnSound({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const chosen = slot.sound ? piece.sounds[slot.sound]?.name : undefined;
  return (
    <>
      <Tap icon="disc" text={chosen ?? 'Choose a sound'} label={`Own sound: ${chosen ?? 'none'}. Choose`} onPress={() => setOpen(true)} style={styles.button} />
      {chosen ? null : <Words kind="small">Until then nothing rings. Any imported sound or print can be the place: a clap, a sweep, a chord.</Words>}
      <Sheet title={`${effectOf(slot.effect).name}: ring in`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {Object.entries(piece.sounds).map(([hash, { name, frames, sampleRate }]) => (
            <Tap
              key={hash}
              plain
              role="radio"
              chosen={hash === slot.sound}
              label={`Ring in ${name}`}
              onPress={() => {
                if (useOpenPiece.getState().run(setEffectSound, { channel, slot: slot.id, sound: hash })) setOpen(false);
              }}
              style={styles.item}
            >
              <Words kind={hash === slot.sound ? 'strong' : 'body'}>{`${name} · ${(frames / sampleRate).toFixed(1)} s`}</Words>
            </Tap>
          ))}
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({ button: { alignSelf: 'flex-start', marginVertical: 6 }, list: { maxHeight: 480 }, item: { alignItems: 'flex-start', paddingHorizontal: 0 } });
