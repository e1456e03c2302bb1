import { StyleSheet, View } from 'react-native';
import { useThemeChoice } from '../../ui/theme';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';

export function ThemeSwitch() {
  const { choice, choose } = useThemeChoice();
  return (
    <View style={styles.block}>
      <Words kind="water">Light</Words>
      <View role="radiogroup" aria-label="Light" style={styles.row}>
        {(['day', 'night', 'system'] as const).map((name) => (
          <Tap
            key={name}
            role="radio"
            label={name === 'system' ? 'As the system' : name}
            text={name === 'system' ? 'as system' : name}
            tone="sea"
            chosen={choice === name}
            onPress={() => choose(name)}
          />
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({ block: { marginTop: 14, gap: 8 }, row: { flexDirection: 'row', gap: 8 } });
