import { useEffect, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { noteMessages } from '../controller/controllerStore';
import { isFreeCode, keyName, MAX_PADS, MAX_STONES, usePlayKeys, type KeyedPlace } from './playKeys';

const PLACES: readonly { readonly place: KeyedPlace; readonly name: string }[] = [
  ...Array.from({ length: MAX_STONES }, (_, i) => ({ place: `stone${i}` as const, name: `Hold ${i + 1}` })),
  ...Array.from({ length: MAX_PADS }, (_, i) => ({ place: `pad${i}` as const, name: `Pad ${i + 1}` })),
  { place: 'presetBack', name: 'Preset before' },
  { place: 'presetNext', name: 'Next preset' },
  { place: 'letGo', name: 'Let go of all' },
];

/** The keys that play, each of which can be another. */
export function KeySheet({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const { codes, notes, assign, assignNote, reset } = usePlayKeys();
  const [waiting, setWaiting] = useState<KeyedPlace | null>(null);
  useEffect(() => {
    if (waiting === null) return undefined;
    const press = (event: KeyboardEvent): void => {
      event.preventDefault();
      event.stopPropagation();
      if (isFreeCode(event.code)) assign(waiting, event.code);
      setWaiting(null);
    };
    document.addEventListener('keydown', press, true);
    const stop = noteMessages.on(({ kind, note }) => {
      if (kind !== 'on' || note === null) return;
      assignNote(waiting, note);
      setWaiting(null);
    });
    return () => {
      stop();
      document.removeEventListener('keydown', press, true);
    };
  }, [waiting, assign, assignNote]);
  return (
    <Sheet title="Keys and notes" visible={open} onClose={onClose}>
      <Text variant="bodySmall">
        The arrow keys move the field, finely with Shift. Press a key’s name, then the key it shall be, or a pad of a
        controller.
      </Text>
      <ScrollView style={styles.list}>
        {PLACES.map(({ place, name }) => (
          <View key={place} style={styles.row}>
            <Text style={styles.name}>{name}</Text>
            <Text variant="bodySmall">{notes[place] === undefined ? '' : `note ${notes[place]}`}</Text>
            <Button
              label={`${name}: ${waiting === place ? 'press a key' : `key ${keyName(codes[place] ?? '')}, change it`}`}
              mode={waiting === place ? 'contained' : 'outlined'}
              onPress={() => setWaiting(place)}
            >
              {waiting === place ? 'press a key' : keyName(codes[place] ?? '') || 'none'}
            </Button>
          </View>
        ))}
      </ScrollView>
      <Button mode="text" onPress={reset}>
        Back to the keys at the start
      </Button>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 480, marginVertical: 8 },
  row: { flexDirection: 'row', alignItems: 'center', minHeight: 52, gap: 12 },
  name: { flex: 1 },
});
