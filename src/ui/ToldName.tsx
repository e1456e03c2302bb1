import { createPortal } from 'react-dom';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Text } from './Text';
import { useTokens } from './theme';
import { useTold } from './told';

const WIDTH = 220;

/** The name of the control that a finger rests on, above it; a reader has it from the control itself. */
export function ToldName() {
  const told = useTold((state) => state.told);
  const tokens = useTokens();
  const { width } = useWindowDimensions();
  if (!told) return null;
  const left = Math.max(8, Math.min(width - WIDTH - 8, told.x - WIDTH / 2));
  // Over sheets too, which are beside the page.
  return createPortal(
    <View aria-hidden style={[styles.place, { left, top: told.y - 8 }]}>
      <View style={[styles.name, { backgroundColor: tokens.ink }]}>
        <Text tone="paper" style={styles.text}>
          {told.text}
        </Text>
      </View>
    </View>,
    document.body,
  );
}

const styles = StyleSheet.create({
  place: {
    position: 'absolute',
    // Upwards from its foot, however many lines it has.
    transform: [{ translateY: '-100%' }],
    width: WIDTH,
    alignItems: 'center',
    pointerEvents: 'none',
    zIndex: 10_000,
  },
  name: { borderRadius: 10, paddingHorizontal: 12, paddingVertical: 8 },
  text: { textAlign: 'center' },
});
