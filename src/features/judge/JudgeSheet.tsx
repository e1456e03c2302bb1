import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { channelName } from '../../core/piece/find';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { usePiece } from '../studio/StudioProvider';
import { JudgePanel } from './JudgePanel';

/** Opens the meters of a channel over the view. */
export function JudgeSheet({ channel }: { readonly channel: string }) {
  const name = channelName(usePiece(), channel);
  const [open, setOpen] = useState(false);
  return (
    <>
      <Tap icon="bar-chart-2" text="Meters" label={`Meters of ${name}`} onPress={() => setOpen(true)} style={styles.tap} />
      <Sheet title={`Meters of ${name}`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>{open ? <JudgePanel channel={channel} name={name} /> : null}</ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  tap: { alignSelf: 'flex-start' },
  list: { maxHeight: 640 },
});
