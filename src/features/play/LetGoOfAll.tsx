import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useHold } from '../../ui/pointer';
import { Text } from '../../ui/Text';
import { useTokens, useWide } from '../../ui/theme';
import { useStudio } from '../studio/StudioProvider';
import { useKeyedPlace } from './playKeys';

/** Ends everything that is played, at the moment it is touched. */
export function LetGoOfAll() {
  const tokens = useTokens();
  const wide = useWide();
  const { studio } = useStudio();
  const view = useRef<View>(null);
  const hands = { begin: () => studio.live.letGoOfAll(), end: () => undefined };
  useHold(view, hands);
  const key = useKeyedPlace('letGo', hands);
  return (
    <View
      ref={view}
      role="button"
      tabIndex={0}
      aria-label="Let go of all"
      style={[styles.button, { borderColor: tokens.ink, backgroundColor: tokens.card }]}
    >
      <Text variant="titleSmall" style={styles.text}>
        {wide && key ? `Let go of all · ${key}` : 'Let go of all'}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  button: {
    flexGrow: 1,
    minHeight: 64,
    borderWidth: 1.5,
    borderRadius: 32,
    paddingHorizontal: 18,
    alignItems: 'center',
    justifyContent: 'center',
    userSelect: 'none',
  },
  text: { fontSize: 16 },
});
