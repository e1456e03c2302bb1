import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { Chip as PaperChip } from 'react-native-paper';
import type { IconName } from './icon';
import { useTokens } from './theme';
import { RADIUS, TOUCH, type Tone } from './tokens';

interface ChipProps {
  /** Label. */
  readonly children: string;
  /** Accessible name, where the label needs its context. */
  readonly label?: string;
  /** `radio` for one of several, `switch` for one by itself. */
  readonly role: 'radio' | 'switch' | 'tab';
  readonly chosen: boolean;
  readonly icon?: IconName;
  readonly tone?: Tone;
  readonly disabled?: boolean;
  /** Smaller padding, where several share a row. */
  readonly dense?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  readonly onPress: () => void;
}

/** Paper's Chip as a choice or a switch: 44 px high, filled with its tone while it is chosen. */
export function Chip({ children, label, role, chosen, tone = 'ink', dense = false, style, ...rest }: ChipProps) {
  const tokens = useTokens();
  const ground = chosen ? { backgroundColor: tokens[tone], borderColor: tokens[tone] } : styles.empty;
  return (
    <PaperChip
      {...rest}
      mode="outlined"
      selected={chosen}
      showSelectedCheck={false}
      accessibilityRole={role}
      accessibilityLabel={label ?? children}
      style={[styles.chip, { borderColor: tokens.line }, ground, style]}
      textStyle={[
        styles.text,
        dense && styles.dense,
        rest.disabled ? undefined : { color: chosen ? tokens.paper : tokens[tone] },
      ]}
    >
      {children}
    </PaperChip>
  );
}

const styles = StyleSheet.create({
  chip: { borderRadius: RADIUS.pill, minHeight: TOUCH + 2, minWidth: TOUCH + 2 },
  empty: { backgroundColor: 'transparent' },
  text: {
    lineHeight: 20,
    marginVertical: (TOUCH - 20) / 2,
    marginLeft: 11,
    marginRight: 11,
    flexGrow: 1,
    textAlign: 'center',
  },
  dense: { marginLeft: 2, marginRight: 2 },
});
