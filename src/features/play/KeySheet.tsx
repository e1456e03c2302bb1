import { useEffect, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { useKeyCapture } from '../../ui/keyCapture';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { noteMessages } from '../shared/controller/controllerStore';
import { isFreeCode, keyName, PLAY_CONTROLS, usePlayKeys, type PlayControl } from '../shared/commands/playKeys';

/** The keys that play, each of which can be another. */
export function KeySheet({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const { codes, notes, assign, assignNote, reset } = usePlayKeys();
  const [waiting, setWaiting] = useState<PlayControl | null>(null);
  useEffect(() => {
    if (waiting === null) return undefined;
    return noteMessages.on(({ kind, note }) => {
      if (kind !== 'on' || note === null) return;
      assignNote(waiting, note);
      setWaiting(null);
    });
  }, [waiting, assignNote]);
  const take = ({ code }: KeyboardEvent): boolean => {
    if (waiting === null) return false;
    if (isFreeCode(code)) assign(waiting, code);
    setWaiting(null);
    return true;
  };
  useKeyCapture(waiting && take);
  return (
    <Sheet title="Keys and notes" visible={open} onClose={onClose}>
      <Text variant="bodySmall">
        The arrow keys move the field, finely with Shift. Press a key’s name, then the key it shall be, or a pad of a
        controller.
      </Text>
      <ScrollView style={styles.list}>
        {PLAY_CONTROLS.map(({ control, name }) => (
          <View key={control} style={styles.row}>
            <Text style={styles.name}>{name}</Text>
            <Text variant="bodySmall">{notes[control] === undefined ? '' : `note ${notes[control]}`}</Text>
            <Button
              label={`${name}: ${waiting === control ? 'press a key' : `key ${keyName(codes[control] ?? '')}, change it`}`}
              mode={waiting === control ? 'contained' : 'outlined'}
              onPress={() => setWaiting(control)}
            >
              {waiting === control ? 'press a key' : keyName(codes[control] ?? '') || 'none'}
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
