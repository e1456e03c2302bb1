import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { channelName } from '../../core/piece/find';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { usePiece } from '../studio/StudioProvider';
import { MeteringPanel } from './MeteringPanel';
import { LoadList } from './LoadList';

/** Opens the meters of a channel over the view. */
export function MeteringSheet({ channel }: { readonly channel: string }) {
  const name = channelName(usePiece(), channel);
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState(false);
  return (
    <>
      <Tap
        icon="bar-chart-2"
        text="Meters"
        label={`Meters of ${name}`}
        onPress={() => setOpen(true)}
        style={styles.tap}
      />
      <Sheet title={`Meters of ${name}`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {open ? <MeteringPanel channel={channel} name={name} /> : null}
          {open && asked ? (
            <LoadList channel={channel} />
          ) : (
            <Tap
              icon="cpu"
              text="Load by effect"
              label="Measure the load of each effect"
              onPress={() => setAsked(true)}
              style={styles.tap}
            />
          )}
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  tap: { alignSelf: 'flex-start' },
  list: { maxHeight: 640 },
});
