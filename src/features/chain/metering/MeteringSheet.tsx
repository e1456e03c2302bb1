import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { channelName } from '../../../core/piece/find';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { usePiece } from '../../studio/StudioProvider';
import { MeteringPanel } from './MeteringPanel';
import { LoadList } from './LoadList';

/** Opens the meters of a channel over the view. */
export function MeteringSheet({ channel }: { readonly channel: string }) {
  const name = channelName(usePiece(), channel);
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState(false);
  return (
    <>
      <Button label={`Meters of ${name}`} icon="bar-chart-2" style={styles.tap} onPress={() => setOpen(true)}>
        Meters
      </Button>
      <Sheet title={`Meters of ${name}`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {open ? <MeteringPanel channel={channel} name={name} /> : null}
          {open && asked ? (
            <LoadList channel={channel} />
          ) : (
            <Button
              label="Measure the load of each effect"
              icon="cpu"
              style={styles.tap}
              onPress={() => setAsked(true)}
            >
              Load by effect
            </Button>
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
