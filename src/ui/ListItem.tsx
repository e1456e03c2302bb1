import type { ComponentProps } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Icon, List } from 'react-native-paper';
import type { IconName } from './icon';
import { Text } from './Text';
import { useTokens } from './theme';
import { TOUCH, type Tone } from './tokens';

interface ListItemProps {
  readonly title: string;
  /** A line below it. */
  readonly note?: string | undefined;
  /** Accessible name, where title and description need their context. */
  readonly label?: string;
  /** `radio` for one of several, `switch` for one by itself; a plain one does something at once. */
  readonly role?: 'button' | 'radio' | 'switch' | 'menuitem';
  readonly chosen?: boolean;
  readonly icon?: IconName;
  readonly variant?: ComponentProps<typeof Text>['variant'];
  readonly tone?: Tone;
  readonly titleStyle?: ComponentProps<typeof Text>['style'];
  readonly disabled?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  readonly onPress: () => void;
}

/** Paper's List.Item as one row of things to choose from: 44 px at least, its state told to a reader. */
export function ListItem({
  title,
  note,
  label = note ? `${title}, ${note}` : title,
  role = 'button',
  chosen,
  icon,
  variant = chosen ? 'titleSmall' : 'bodyMedium',
  tone,
  titleStyle,
  disabled = false,
  style,
  onPress,
}: ListItemProps) {
  const tokens = useTokens();
  const ink = tokens[tone ?? 'ink'];
  return (
    <List.Item
      title={() => (
        <Text variant={variant} {...(tone ? { tone } : {})} numberOfLines={2} style={titleStyle}>
          {title}
        </Text>
      )}
      description={note === undefined ? undefined : () => <Text variant="bodySmall">{note}</Text>}
      left={
        icon
          ? () => (
              <View style={styles.icon}>
                <Icon source={icon} size={19} color={ink} />
              </View>
            )
          : undefined
      }
      accessibilityRole={role}
      accessibilityLabel={label}
      accessibilityState={{ disabled, ...(chosen === undefined ? {} : { selected: chosen }) }}
      disabled={disabled}
      onPress={onPress}
      containerStyle={styles.row}
      contentStyle={styles.content}
      style={[styles.item, style]}
    />
  );
}

const styles = StyleSheet.create({
  item: { minHeight: TOUCH, paddingVertical: 6, paddingRight: 0, borderRadius: 12, justifyContent: 'center' },
  row: { alignItems: 'center', marginVertical: 0 },
  content: { paddingLeft: 0 },
  icon: { paddingLeft: 4, paddingRight: 12 },
});
