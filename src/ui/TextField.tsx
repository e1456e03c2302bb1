import type { ComponentProps } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { HelperText, TextInput } from 'react-native-paper';
import { RADIUS, TOUCH } from './tokens';

type Passed = Pick<
  ComponentProps<typeof TextInput>,
  | 'value'
  | 'onChangeText'
  | 'onSubmitEditing'
  | 'onBlur'
  | 'placeholder'
  | 'maxLength'
  | 'inputMode'
  | 'selectTextOnFocus'
>;

interface TextFieldProps extends Passed {
  /** Accessible name. */
  readonly label: string;
  /** Reason why the text is not accepted. */
  readonly problem?: string | undefined;
  /** True where the reason is shown elsewhere. */
  readonly invalid?: boolean;
  readonly style?: StyleProp<ViewStyle>;
}

/** Paper's TextInput, 44 px high, with the reason under it when it does not take what is typed. */
export function TextField({ label, problem, invalid = problem !== undefined, style, ...rest }: TextFieldProps) {
  return (
    <View style={[styles.field, style]}>
      <TextInput
        {...rest}
        dense
        mode="outlined"
        aria-label={label}
        aria-invalid={invalid}
        error={invalid}
        blurOnSubmit={false}
        outlineStyle={styles.outline}
        contentStyle={styles.content}
        style={styles.input}
      />
      {problem === undefined ? null : (
        <HelperText type="error" role="alert" padding="none">
          {problem}
        </HelperText>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  field: { flex: 1, minWidth: 0 },
  input: { height: TOUCH, minWidth: 0 },
  content: { paddingHorizontal: 14 },
  outline: { borderRadius: RADIUS.field },
});
