import { useState } from 'react';
import { Pressable, StyleSheet, TextInput, View } from 'react-native';
import { formatValue } from '../core/params/format';
import type { Param, ParamValue, ValueContext } from '../core/params/param';
import { parseValue } from '../core/params/parse';
import { useKeyCapture } from './keyCapture';
import { useTokens } from './theme';
import { FONT_STRONG, TOUCH } from './tokens';
import { Text } from './Text';

interface RailValueProps {
  readonly param: Param;
  /** What it is called where its label alone does not say which of several it is. */
  readonly name?: string;
  readonly value: ParamValue;
  readonly context: ValueContext;
  readonly onSet: (value: ParamValue) => void;
}

/** What the field starts from: the note value of a synced time, else the figure. */
const shortForm = (text: string): string => text.split(' · ')[0] ?? text;

/**
 * The value at the right of a rail; tap it to type. Invalid text stays in the field with the reason under it; leaving
 * the field applies valid text.
 */
export function RailValue({ param, name = param.label, value, context, onSet }: RailValueProps) {
  const tokens = useTokens();
  const [typed, setTyped] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const text = formatValue(param, value, context);
  const close = (): void => {
    setTyped(null);
    setRefusal(null);
  };
  const leave = ({ key }: KeyboardEvent): boolean => {
    if (key === 'Escape') close();
    return key === 'Escape';
  };
  useKeyCapture(typed === null ? null : leave);
  const submit = (leaving: boolean): void => {
    const parsed = parseValue(param, typed ?? '', context);
    if (!parsed.ok && !leaving) {
      setRefusal(parsed.message);
      return;
    }
    close();
    if (parsed.ok && typed !== shortForm(text)) onSet(parsed.value);
  };
  if (typed === null) {
    return (
      <Pressable
        role="button"
        aria-label={`${name}, ${text}. Type a value`}
        onPress={() => setTyped(shortForm(text))}
        style={styles.value}
      >
        <Text variant="titleSmall" numberOfLines={1}>
          {text}
        </Text>
      </Pressable>
    );
  }
  return (
    <View style={styles.editing}>
      <TextInput
        autoFocus
        selectTextOnFocus
        aria-label={`${name} as text`}
        aria-invalid={refusal !== null}
        value={typed}
        onChangeText={setTyped}
        onSubmitEditing={() => submit(false)}
        blurOnSubmit={false}
        onBlur={() => submit(true)}
        style={[
          styles.input,
          { color: tokens.ink, borderColor: refusal ? tokens.danger : tokens.sea, backgroundColor: tokens.card },
        ]}
      />
      {refusal ? (
        <Text variant="bodySmall" tone="danger" role="alert" style={styles.refusal}>
          {refusal}
        </Text>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  value: {
    minHeight: TOUCH,
    minWidth: 48,
    marginVertical: -10,
    justifyContent: 'center',
    alignItems: 'flex-end',
    paddingLeft: 12,
    flexShrink: 0,
    zIndex: 1,
  },
  editing: { alignItems: 'flex-end', flexShrink: 1 },
  input: {
    minHeight: TOUCH,
    width: 150,
    marginVertical: -8,
    borderWidth: 2,
    borderRadius: 8,
    paddingHorizontal: 10,
    fontFamily: FONT_STRONG,
    fontSize: 16,
    textAlign: 'right',
  },
  refusal: { maxWidth: 240, textAlign: 'right', marginTop: 10 },
});
