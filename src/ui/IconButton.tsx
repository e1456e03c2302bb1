import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { IconButton as PaperIconButton } from 'react-native-paper';
import type { IconName } from './icon';
import { useTokens } from './theme';
import { TOUCH, type Tone } from './tokens';
import { showTooltip } from './tooltipState';

interface IconButtonProps {
  readonly icon: IconName;
  /** Accessible name: what it does. */
  readonly label: string;
  readonly tone?: Tone;
  readonly mode?: 'outlined' | 'contained' | 'text';
  /** A switch tells by `chosen` whether it is on. */
  readonly role?: 'button' | 'switch';
  readonly chosen?: boolean;
  readonly disabled?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  readonly onPress: () => void;
}

/** Paper's IconButton at 44 px, in one of the product's inks. A long press shows its label. */
export function IconButton({
  label,
  tone = 'ink',
  mode = 'text',
  role = 'button',
  chosen,
  style,
  ...rest
}: IconButtonProps) {
  const tokens = useTokens();
  return (
    <PaperIconButton
      {...rest}
      size={19}
      mode={mode === 'text' ? undefined : mode}
      iconColor={rest.disabled ? undefined : mode === 'contained' ? tokens.paper : tokens[tone]}
      containerColor={mode === 'contained' && !rest.disabled ? tokens[tone] : undefined}
      accessibilityLabel={label}
      accessibilityRole={role}
      accessibilityState={{ disabled: rest.disabled === true, ...(role === 'switch' ? { checked: chosen } : {}) }}
      onLongPress={({ currentTarget }) => showTooltip(label, currentTarget)}
      style={[styles.size, mode === 'outlined' && styles.outlined, style]}
    />
  );
}

const styles = StyleSheet.create({
  size: { margin: 0, width: TOUCH, height: TOUCH, borderRadius: TOUCH / 2 },
  // The touch area is within the border.
  outlined: { width: TOUCH + 2, height: TOUCH + 2, borderRadius: TOUCH / 2 + 1 },
});
