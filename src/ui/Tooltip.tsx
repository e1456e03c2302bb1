import { createPortal } from 'react-dom';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Text } from './Text';
import { useTokens } from './theme';
import { useTooltip } from './tooltipState';

const WIDTH = 220;

/**
 * The name of the control that is pressed for long, above it; a screen reader has it from the control itself. Paper's
 * Tooltip would be one more stop of the Tab key for every control.
 */
export function Tooltip() {
  const tooltip = useTooltip((state) => state.tooltip);
  const tokens = useTokens();
  const { width } = useWindowDimensions();
  if (!tooltip) return null;
  const left = Math.max(8, Math.min(width - WIDTH - 8, tooltip.x - WIDTH / 2));
  // Over sheets too, which are beside the page.
  return createPortal(
    <View aria-hidden style={[styles.place, { left, top: tooltip.y - 8 }]}>
      <View style={[styles.name, { backgroundColor: tokens.ink }]}>
        <Text tone="paper" style={styles.text}>
          {tooltip.text}
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
