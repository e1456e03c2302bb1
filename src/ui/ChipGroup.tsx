import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from './Text';

interface ChipGroupProps {
  readonly name: string;
  /** `radiogroup` where one of them is chosen. */
  readonly role: 'group' | 'radiogroup';
  readonly children: ReactNode;
}

/** Taps under a heading, side by side as far as there is room. */
export function ChipGroup({ name, role, children }: ChipGroupProps) {
  return (
    <>
      <Text style={styles.label}>{name}</Text>
      <View role={role} aria-label={name} style={styles.row}>
        {children}
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  label: { marginTop: 12, marginBottom: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
