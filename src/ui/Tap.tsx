import Feather from '@expo/vector-icons/Feather';
import type { ComponentProps, ReactNode } from 'react';
import { Pressable, StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { useTokens } from './theme';
import { TOUCH, type Tokens } from './tokens';
import { Words } from './Words';

export type IconName = ComponentProps<typeof Feather>['name'];

interface TapProps {
  readonly label: string;
  readonly onPress: () => void;
  readonly icon?: IconName;
  /** Shown beside the icon; without it the icon stands alone and `label` is only spoken. */
  readonly text?: string;
  readonly chosen?: boolean;
  readonly tone?: keyof Omit<Tokens, 'night'>;
  readonly filled?: boolean;
  readonly plain?: boolean;
  readonly disabled?: boolean;
  readonly role?: 'button' | 'tab' | 'radio' | 'switch' | 'menuitem';
  readonly style?: StyleProp<ViewStyle>;
  readonly children?: ReactNode;
}

/** Anything that is tapped: at least 44 px, said by its label, its state never told by colour alone. */
export function Tap({
  label,
  onPress,
  icon,
  text,
  chosen = false,
  tone = 'ink',
  filled = false,
  plain = false,
  disabled = false,
  role = 'button',
  style,
  children,
}: TapProps) {
  const tokens = useTokens();
  const full = filled || (chosen && !plain);
  const ink = full ? tokens.paper : tokens[tone];
  const state =
    role === 'tab'
      ? { 'aria-selected': chosen }
      : role === 'radio' || role === 'switch'
        ? { 'aria-checked': chosen }
        : role === 'button' && chosen
          ? { 'aria-pressed': true }
          : {};
  return (
    <Pressable
      role={role}
      aria-label={label}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      {...state}
      style={({ pressed }) => [
        styles.tap,
        !plain && { borderColor: full ? tokens[tone] : tokens.line, borderWidth: 1 },
        full && { backgroundColor: tokens[tone] },
        (pressed || disabled) && { opacity: disabled ? 0.4 : 0.7 },
        style,
      ]}
    >
      {children ?? (
        <View style={styles.row}>
          {icon ? <Feather name={icon} size={19} color={ink} /> : null}
          {text ? (
            <Words kind="body" numberOfLines={1} style={{ color: ink }}>
              {text}
            </Words>
          ) : null}
        </View>
      )}
    </Pressable>
  );
}

const styles = StyleSheet.create({
  tap: {
    minHeight: TOUCH,
    minWidth: TOUCH,
    borderRadius: 22,
    paddingHorizontal: 12,
    alignItems: 'center',
    justifyContent: 'center',
  },
  row: { flexDirection: 'row', alignItems: 'center', gap: 7, flexShrink: 1 },
});
