import type { ReactNode } from 'react';
import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { useTokens } from './theme';
import { AT_ONCE, RADIUS, TOUCH, type Tone } from './tokens';

interface TouchableProps {
  readonly label: string;
  readonly role?: 'button' | 'tab' | 'radio' | 'switch' | 'menuitem';
  /** Of a tab, a radio or a switch, or of a button that stays pressed. */
  readonly chosen?: boolean;
  /** `outlined` has the form of a button, filled with its tone while it is chosen. */
  readonly mode?: 'outlined' | 'text';
  readonly tone?: Tone;
  readonly disabled?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  readonly onPress: () => void;
  readonly children: ReactNode;
}

/** Paper's TouchableRipple around anything that is tapped as a whole: at least 44 px, with its state for a reader. */
export function Touchable({
  label,
  role = 'button',
  chosen,
  mode = 'text',
  tone = 'ink',
  disabled = false,
  style,
  onPress,
  children,
}: TouchableProps) {
  const tokens = useTokens();
  const ground = chosen ? { backgroundColor: tokens[tone], borderColor: tokens[tone] } : { borderColor: tokens.line };
  return (
    <TouchableRipple
      borderless
      accessibilityRole={role}
      accessibilityLabel={label}
      accessibilityState={{ disabled, ...(chosen === undefined ? {} : { selected: chosen }) }}
      disabled={disabled}
      onPress={onPress}
      style={[
        styles.touch,
        AT_ONCE,
        mode === 'outlined' && [styles.outlined, ground],
        disabled && styles.disabled,
        style,
      ]}
    >
      {/* TouchableRipple takes one child; what is within is laid out by `style`. */}
      <>{children}</>
    </TouchableRipple>
  );
}

const styles = StyleSheet.create({
  touch: {
    minHeight: TOUCH,
    minWidth: TOUCH,
    borderRadius: RADIUS.pill,
    paddingHorizontal: 12,
    alignItems: 'center',
    justifyContent: 'center',
  },
  outlined: { borderWidth: 1 },
  disabled: { opacity: 0.4 },
});
