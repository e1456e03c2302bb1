import { StyleSheet, View } from 'react-native';
import { Tap } from './Tap';
import { useTokens } from './theme';
import { Words } from './Words';

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
    <Tap plain role="radio" chosen={chosen} label={`${name}: ${says}`} onPress={onPress} style={styles.item}>
      <View style={styles.row}>
        <View
          style={[styles.dot, { borderColor: tokens.coral, backgroundColor: chosen ? tokens.coral : 'transparent' }]}
        />
        <View style={styles.words}>
          <Words kind="strong">{name}</Words>
          <Words kind="small">{says}</Words>
        </View>
      </View>
    </Tap>
  );
}

const styles = StyleSheet.create({
  item: { alignItems: 'stretch', paddingHorizontal: 0, paddingVertical: 6 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  dot: { width: 18, height: 18, borderRadius: 9, borderWidth: 2 },
  words: { flex: 1 },
});
