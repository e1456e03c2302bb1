import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { Tap } from './Tap';
import { useTokens } from './theme';
import { FONT, TOUCH } from './tokens';

interface NameFieldProps {
  /** What it names, as it is spoken. */
  readonly label: string;
  readonly initial: string;
  readonly action?: string;
  readonly onName: (name: string) => void;
}

/** A name to be typed, and kept by Enter or by the button; an empty one is not taken. */
export function NameField({ label, initial, action = 'Rename', onName }: NameFieldProps) {
  const tokens = useTokens();
  const [name, setName] = useState(initial);
  const trimmed = name.trim();
  const keep = (): void => {
    if (trimmed) onName(trimmed);
  };
  return (
    <View style={styles.row}>
      <TextInput
        aria-label={label}
        value={name}
        maxLength={120}
        onChangeText={setName}
        onSubmitEditing={keep}
        style={[styles.field, { color: tokens.ink, borderColor: tokens.line, backgroundColor: tokens.paper }]}
      />
      <Tap text={action} label={action} disabled={!trimmed} onPress={keep} />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 8, alignItems: 'center', marginBottom: 8 },
  field: {
    flex: 1,
    minWidth: 0,
    minHeight: TOUCH,
    borderWidth: 1,
    borderRadius: 14,
    paddingHorizontal: 12,
    fontFamily: FONT,
    fontSize: 16,
  },
});
