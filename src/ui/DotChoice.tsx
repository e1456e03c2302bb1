import { StyleSheet, View } from 'react-native';
import { Text } from './Text';
import { Touchable } from './Touchable';
import { useTokens } from './theme';

interface DotChoiceProps {
  readonly name: string;
  readonly says: string;
  readonly chosen: boolean;
  readonly onPress: () => void;
}

/** One of several ways, with a line on what it does. */
export function DotChoice({ name, says, chosen, onPress }: DotChoiceProps) {
  const tokens = useTokens();
  return (
    <Touchable role="radio" label={`${name}: ${says}`} chosen={chosen} style={styles.item} onPress={onPress}>
      <View style={styles.row}>
        <View
          style={[styles.dot, { borderColor: tokens.coral, backgroundColor: chosen ? tokens.coral : 'transparent' }]}
        />
        <View style={styles.words}>
          <Text variant="titleSmall">{name}</Text>
          <Text variant="bodySmall">{says}</Text>
        </View>
      </View>
    </Touchable>
  );
}

const styles = StyleSheet.create({
  item: { alignItems: 'stretch', paddingHorizontal: 0, paddingVertical: 6 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  dot: { width: 18, height: 18, borderRadius: 9, borderWidth: 2 },
  words: { flex: 1 },
});
