import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { Button as PaperButton } from 'react-native-paper';
import type { IconName } from './icon';
import { IconButton } from './IconButton';
import { useTokens } from './theme';
import { TOUCH, type Tone } from './tokens';

interface ButtonProps {
  /** Label; an icon alone without one. */
  readonly children?: string | undefined;
  /** Accessible name, where the label needs its context. */
  readonly label?: string;
  readonly icon?: IconName;
  /** Text colour of an outlined or plain one, background of a filled one. */
  readonly tone?: Tone;
  readonly mode?: 'outlined' | 'contained' | 'text';
  readonly disabled?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  /** Alignment of the content: `flex-start` for a button as wide as a list. */
  readonly align?: 'center' | 'flex-start';
  readonly onPress: () => void;
}

/** Paper's Button, 44 px high and in one of the product's inks. */
export function Button({
  children,
  label = children ?? '',
  icon,
  tone = 'ink',
  mode = 'outlined',
  align = 'center',
  style,
  ...rest
}: ButtonProps) {
  const tokens = useTokens();
  if (children === undefined && icon)
    return <IconButton {...rest} icon={icon} label={label} mode={mode} tone={tone} style={style} />;
  return (
    <PaperButton
      {...rest}
      icon={icon}
      compact
      mode={mode}
      textColor={rest.disabled ? undefined : mode === 'contained' ? tokens.paper : tokens[tone]}
      buttonColor={mode === 'contained' && !rest.disabled ? tokens[tone] : undefined}
      accessibilityLabel={label}
      style={style}
      contentStyle={[styles.content, { justifyContent: align }]}
      labelStyle={styles.text}
    >
      {children}
    </PaperButton>
  );
}

const styles = StyleSheet.create({
  content: { minHeight: TOUCH, minWidth: TOUCH, paddingHorizontal: 5 },
  text: { marginVertical: 0, marginHorizontal: 7 },
});
