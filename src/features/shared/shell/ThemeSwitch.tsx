import { StyleSheet, View } from 'react-native';
import { useThemeChoice } from '../../../ui/theme';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';

export function ThemeSwitch() {
  const { choice, choose } = useThemeChoice();
  return (
    <View style={styles.block}>
      <Text variant="headlineSmall">Light</Text>
      <View role="radiogroup" aria-label="Light" style={styles.row}>
        {(['day', 'night', 'system'] as const).map((name) => (
          <Chip
            key={name}
            role="radio"
            label={name === 'system' ? 'As the system' : name}
            chosen={choice === name}
            tone="sea"
            onPress={() => choose(name)}
          >
            {name === 'system' ? 'as system' : name}
          </Chip>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({ block: { marginTop: 14, gap: 8 }, row: { flexDirection: 'row', gap: 8 } });
